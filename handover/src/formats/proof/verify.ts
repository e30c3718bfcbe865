import { createPublicKey, verify } from 'node:crypto';
import type { Sealed } from '../../format';
import {
  brokenEvidence,
  brokenRevision,
  fingerprintOf,
  headOf,
  type ChainedRevision,
} from './chain';
import type { ProofReport } from './report';

export const PROOF_FORMAT = 'ipsonomo-proof';
export const PROOF_VERSION = 1;

/** A proof as it stands in its file. */
export interface ProofFile {
  readonly format: typeof PROOF_FORMAT;
  readonly version: number;
  readonly head: string;
  readonly publicKey: string;
  readonly report: ProofReport;
  readonly revisions: readonly ChainedRevision[];
  readonly evidence: readonly Sealed[];
}

/** What is wrong with a proof, and where. */
export type ProofFault =
  | { readonly code: 'unreadable'; readonly why: string }
  | { readonly code: 'format' }
  | { readonly code: 'evidence' | 'revision'; readonly place: number }
  | { readonly code: 'report' }
  | { readonly code: 'unsupported'; readonly device: string; readonly what: string }
  | { readonly code: 'other-head'; readonly is: string; readonly wanted: string }
  | { readonly code: 'signature' }
  | { readonly code: 'no-signature' };

export interface Verified {
  readonly faults: readonly ProofFault[];
  /** Of what could be read; undefined where nothing could. */
  readonly proof: ProofFile | undefined;
  readonly fingerprint: string;
}

/**
 * R-VERIFY: what a proof shows by itself: both chains hold link by link, the head seals them and the report, what the
 * report says was found stands in the chain, the signature is of the key that it names. Whether that key is the
 * installation's, and the head the one on paper, only somebody can say who knows them.
 * @param bytes of the file as they are
 * @param signature beside it; undefined where there is none
 * @param head as it is printed on paper, where somebody has it
 */
export function verifyProof(
  bytes: Uint8Array,
  signature: Uint8Array | undefined,
  head: string | undefined,
): Verified {
  const read = readProof(bytes);
  if ('code' in read) return { faults: [read], proof: undefined, fingerprint: '' };
  const { evidence, revisions, report, publicKey } = read;
  const faults: ProofFault[] = [];
  const [badPiece, badRevision] = [brokenEvidence(evidence), brokenRevision(revisions)];
  if (badPiece >= 0) faults.push({ code: 'evidence', place: badPiece + 1 });
  if (badRevision >= 0) faults.push({ code: 'revision', place: badRevision + 1 });
  if (headOf(evidence, revisions, report) !== read.head) faults.push({ code: 'report' });
  faults.push(...unsupported(read));
  const wanted = head?.toLowerCase().replace(/[^0-9a-f]/g, '');
  if (wanted !== undefined && wanted !== read.head)
    faults.push({ code: 'other-head', is: read.head, wanted });
  if (!signature) faults.push({ code: 'no-signature' });
  else if (!isSigned(bytes, signature, publicKey)) faults.push({ code: 'signature' });
  return { faults, proof: read, fingerprint: fingerprintOf(publicKey) };
}

function readProof(bytes: Uint8Array): ProofFile | ProofFault {
  try {
    const json = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as ProofFile;
    const isOurs =
      json.format === PROOF_FORMAT &&
      json.version === PROOF_VERSION &&
      hasTexts(json, 'head', 'publicKey') &&
      isListOf(
        json.evidence,
        (one) => hasTexts(one, 'chain') && (hasTexts(one, 'text') || hasNumber(one, 'folded')),
      ) &&
      isListOf(json.revisions, (one) => hasTexts(one, 'chain', 'at', 'person', 'what', 'edits')) &&
      isListOf(json.report?.devices, isDevice);
    return isOurs ? json : { code: 'format' };
  } catch (error) {
    return { code: 'unreadable', why: error instanceof Error ? error.message : String(error) };
  }
}

const hasTexts = (one: unknown, ...fields: readonly string[]): boolean =>
  typeof one === 'object' &&
  one !== null &&
  fields.every((field) => typeof (one as Record<string, unknown>)[field] === 'string');

const hasNumber = (one: unknown, field: string): boolean =>
  typeof (one as Record<string, unknown>)[field] === 'number';

const isListOf = (list: unknown, isOne: (one: unknown) => boolean): boolean =>
  Array.isArray(list) && (list as readonly unknown[]).every(isOne);

const isDevice = (one: unknown): boolean =>
  hasTexts(one, 'device', 'interface') &&
  isListOf((one as { readonly evidence: unknown }).evidence, (piece) =>
    hasTexts(piece, 'kind', 'at', 'words'),
  );

function isSigned(bytes: Uint8Array, signature: Uint8Array, publicKey: string): boolean {
  try {
    return verify(null, bytes, createPublicKey(publicKey), signature);
  } catch {
    return false;
  }
}

/** A piece as its seal has it: job, place, interface, run, sequence, kind, seconds since 1970, … */
const INTERFACE = 2;
const KIND = 5;
const SECONDS = 6;

/** Every piece of evidence that the report names stands in the chain, unless it was folded there. */
function unsupported({ evidence, report }: ProofFile): readonly ProofFault[] {
  if (evidence.some((one) => 'folded' in one)) return [];
  const sealed = new Set(
    evidence.flatMap((one) => {
      const piece = 'text' in one ? readPiece(one.text) : [];
      const [at, kind, seconds] = [piece[INTERFACE], piece[KIND], Number(piece[SECONDS])];
      return [`${String(at)} ${String(kind)} ${Math.floor(seconds * 1000)}`];
    }),
  );
  return report.devices.flatMap((device) =>
    device.evidence.flatMap(({ kind, at, words }): readonly ProofFault[] => {
      const millis = Date.parse(at);
      // The database keeps microseconds, a page milliseconds.
      const has = [millis, millis - 1, millis + 1].some((one) =>
        sealed.has(`${device.interface} ${kind} ${one}`),
      );
      return has ? [] : [{ code: 'unsupported', device: device.device, what: words }];
    }),
  );
}

function readPiece(text: string): readonly unknown[] {
  try {
    const piece: unknown = JSON.parse(text);
    return Array.isArray(piece) ? piece : [];
  } catch {
    return [];
  }
}
