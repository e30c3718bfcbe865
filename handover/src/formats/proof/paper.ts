import type { LeftOut } from '@ipsonomo/core/api';
import { PROOF_WORDS } from '@ipsonomo/language/hand-over-files';
import type { Material } from '../../format';
import { localTime, stateOf } from '../../parts/head';
import { onPaper } from '../../parts/on-paper';
import { Paper } from '../../parts/paper';
import { fingerprintOf } from './chain';
import type { DeviceReport, ProofReport } from './report';

const CODE = 40;

/** What was proven, for people: the head first, then in short, then device by device. */
export async function proofPaper(
  material: Material,
  report: ProofReport,
  seal: { readonly head: string; readonly publicKey: string },
): Promise<{ readonly content: Uint8Array; readonly left: readonly LeftOut[] }> {
  const title = `${material.job}: ${PROOF_WORDS.title}`;
  const state = stateOf(material);
  const paper = new Paper({ title, at: material.at, foot: state.join(' ') });
  paper.newPage();
  const fingerprint = fingerprintOf(seal.publicKey);
  const code = `ipsonomo-proof ${seal.head} ${fingerprint.replace(/ /g, '')}`;
  paper.draw({ kind: 'qr', x: 15 + paper.width - CODE, y: 15, side: CODE, text: code });
  const beside = { right: CODE + 6 };
  paper.words(title, 7, 'bold', beside);
  for (const line of state) paper.words(line, 4, 'sans', beside);
  paper.y = Math.max(paper.y, 15 + CODE + 4);
  paper.words(PROOF_WORDS.head, 4, 'bold');
  paper.words((seal.head.match(/.{8}/g) ?? []).join(' '), 4, 'mono');
  paper.words(PROOF_WORDS.headAbout, 3);
  paper.space();
  paper.words(PROOF_WORDS.key, 4, 'bold');
  paper.words(fingerprint, 3.2, 'mono');
  summary(paper, report);
  listOf(paper, PROOF_WORDS.snags, PROOF_WORDS.noSnags, report.snags.map(snagLine));
  listOf(
    paper,
    PROOF_WORDS.acceptedTitle,
    PROOF_WORDS.nothingAccepted,
    report.accepted.map(({ key, reason, person }) => `${key}: ${reason} (${person})`),
  );
  paper.newPage();
  paper.words(PROOF_WORDS.devices, 6, 'bold');
  const left = report.devices.flatMap((device, at) => {
    const one = material.chosen[at];
    return one ? onPaper(paper, one, () => deviceOn(paper, device)) : [];
  });
  return { content: await paper.end(), left };
}

const snagLine = ({ severity, words }: ProofReport['snags'][number]): string =>
  `${severity === 'wrong' ? '!' : '-'} ${words}`;

function summary(paper: Paper, { counts, devices }: ProofReport): void {
  paper.space();
  paper.words(PROOF_WORDS.summary, 5, 'bold');
  for (const [kind, count] of Object.entries(counts))
    paper.words(`${count} ${PROOF_WORDS[kind as keyof typeof counts]}`, 4);
  const not = devices.filter(({ outcome }) => outcome === 'not-asked' || outcome === 'silent');
  listOf(
    paper,
    PROOF_WORDS.notLookedAtTitle,
    PROOF_WORDS.nothingNotLookedAt,
    not.map(({ device, address, outcome }) => `${device}, ${address}: ${PROOF_WORDS[outcome]}`),
  );
}

function listOf(paper: Paper, title: string, none: string, lines: readonly string[]): void {
  paper.space();
  paper.words(title, 5, 'bold');
  for (const line of lines.length > 0 ? lines : [none]) paper.words(line, 3.4);
}

function deviceOn(paper: Paper, one: DeviceReport): void {
  paper.need(18);
  paper.space(2);
  paper.rule();
  paper.words(`${one.device} · ${PROOF_WORDS[one.outcome]}`, 4, 'bold');
  paper.words([one.name, one.address, one.mac].filter(Boolean).join(' · '), 3.2, 'mono');
  if (one.evidence.length === 0) paper.words(PROOF_WORDS.noEvidence, 3.2);
  for (const { words, at, person, source } of one.evidence) {
    const whose = person === '' ? '' : `, ${PROOF_WORDS.by} ${person}`;
    const when = localTime(Date.parse(at));
    paper.words(`${when} ${words}${whose} (${source})`, 3.2, 'sans', { left: 4 });
  }
  for (const { words, settled } of one.differences) {
    const how = settled
      ? `${PROOF_WORDS.settled}: ${settled.reason} (${settled.person})`
      : PROOF_WORDS.open;
    paper.words(`! ${words}. ${how}`, 3.2, 'bold', { left: 4 });
  }
}
