import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import type { FormatId } from '@ipsonomo/core/api';
import { planOf } from '@ipsonomo/core/plan';
import { formatOf, materialOf, verifyProof } from '@ipsonomo/handover';
import { leftOutWords, proofFaultWords, VERIFY_WORDS } from '@ipsonomo/language/hand-over-files';
import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { option, type Command, type Output } from './output';
import { readPlan } from './plan';

/** What a plan alone is enough for, by the word that is typed; a proof needs the evidence, and so the server. */
const FORMATS: Readonly<Record<string, FormatId>> = {
  ...{ csv: 'addresses-csv', xlsx: 'addresses-xlsx', dnsmasq: 'dnsmasq', dhcpd: 'dhcpd' },
  ...{ kea: 'kea', hosts: 'hosts', zone: 'zones', firewall: 'firewall', nftables: 'nftables' },
  ...{ targets: 'targets', connections: 'connections-csv', 'connections-pdf': 'connections-pdf' },
  ...{ names: 'names', corrections: 'corrections', 'written-places': 'written-places' },
  ...{ labels: 'labels-pdf', 'swap-cards': 'swap-cards', 'cabinet-sheets': 'cabinet-sheets' },
  ...{ picture: 'picture-svg' },
};

/**
 * A plan file in a format that others read. One file goes to standard output, or where `--out` says; several, and those
 * that are no text, need a place. What the format cannot hold is told on standard error.
 */
export async function exportPlan(inputs: readonly string[], output: Output): Promise<boolean> {
  const [word = '', withoutAs] = option(inputs, '--as');
  const [out, [path = '']] = option(withoutAs, '--out');
  const format = Object.hasOwn(FORMATS, word) ? formatOf(FORMATS[word] as FormatId) : undefined;
  if (!format) {
    output.tell(COMMAND_WORDS.formatsAre({ formats: Object.keys(FORMATS).join(', ') }));
    return false;
  }
  const doc = readPlan(path, output);
  if (!doc) return false;
  const material = materialOf({
    ...{
      job: basename(path).replace(/\.json$/, ''),
      revision: 1,
      at: Date.now(),
      plan: planOf(doc),
    },
    options: planOf(doc).settings.handOver ?? {},
  });
  const { files, left } = await format.write(material);
  for (const one of left) output.tell(leftOutWords(one));
  const [only] = files;
  if (files.length === 1 && only && (out !== undefined || typeof only.content === 'string')) {
    if (out === undefined) process.stdout.write(only.content);
    else write(out, only.content);
    return true;
  }
  if (out === undefined) {
    output.tell(COMMAND_WORDS.saysWhereTo({ format: word, count: files.length }));
    return false;
  }
  for (const { name, content } of files) write(join(out, name), content);
  return true;
}

function write(path: string, content: string | Uint8Array): void {
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, content);
}

/** What a proof shows by itself, and what it does not. False where something is wrong with it. */
export const verify: Command = ([path = '', head], output: Output) => {
  if (!existsSync(path)) {
    output.tell(COMMAND_WORDS.noFile({ path }));
    return false;
  }
  const beside = `${path}.sig`;
  const signature = existsSync(beside) ? readFileSync(beside) : undefined;
  const { faults, proof, fingerprint } = verifyProof(readFileSync(path), signature, head);
  for (const fault of faults) {
    output.print(fault);
    output.tell(`! ${proofFaultWords(fault)}`);
  }
  if (proof) {
    const { job, revision, at, counts } = proof.report;
    output.print({ job, revision, at, counts, head: proof.head, key: fingerprint });
    if (faults.length === 0) output.tell(VERIFY_WORDS.holds);
    output.tell(`${VERIFY_WORDS.key} ${fingerprint}`);
    if (head === undefined) output.tell(`${VERIFY_WORDS.head} ${proof.head}`);
    output.tell(VERIFY_WORDS.doesNotShow);
  }
  return faults.length === 0;
};
