import { createHash } from 'node:crypto';
import type { RevisionLine, Sealed } from '../../format';
import type { ProofReport } from './report';

// R-PROOF-CHAIN: each link is the SHA-256 (FIPS 180-4) of the link before and what it seals, so that whoever knows the
// last link knows them all.

const sha256 = (...parts: readonly (string | Uint8Array)[]): string => {
  const hash = createHash('sha256');
  for (const part of parts) hash.update(part);
  return hash.digest('hex');
};

/** The link of a piece of evidence: of the bytes of the link before, and its text in UTF-8. */
export const evidenceLink = (before: string, text: string): string =>
  sha256(Buffer.from(before, 'hex'), text);

export interface ChainedRevision extends RevisionLine {
  readonly chain: string;
}

const revisionLink = (before: string, { number, at, person, what, edits }: RevisionLine): string =>
  sha256(before, JSON.stringify([number, at, person, what, edits]));

export function chainRevisions(lines: readonly RevisionLine[]): readonly ChainedRevision[] {
  let before = '';
  return lines.map((line) => ({ ...line, chain: (before = revisionLink(before, line)) }));
}

/** The first link that does not follow on the one before, counted from 0; -1 where all do. */
export function brokenRevision(lines: readonly ChainedRevision[]): number {
  let before = '';
  return lines.findIndex((line) => {
    const isGood = line.chain === revisionLink(before, line);
    before = line.chain;
    return !isGood;
  });
}

/** Where the chain of evidence breaks, counted from 0; -1 where it does not. What was folded is taken at its word. */
export function brokenEvidence(all: readonly Sealed[]): number {
  let before = '';
  return all.findIndex((one) => {
    const isGood = 'folded' in one || one.chain === evidenceLink(before, one.text);
    before = one.chain;
    return !isGood;
  });
}

/** What is printed on paper: it seals both chains and the report. */
export const headOf = (
  evidence: readonly Sealed[],
  revisions: readonly ChainedRevision[],
  report: ProofReport,
): string =>
  sha256(
    evidence.at(-1)?.chain ?? '',
    '|',
    revisions.at(-1)?.chain ?? '',
    '|',
    sha256(JSON.stringify(report)),
  );

/** How a key is told from another by eye: SHA-256 of its text, in groups of four. */
export const fingerprintOf = (publicKey: string): string =>
  (sha256(publicKey.trim()).match(/.{4}/g) ?? []).join(' ');
