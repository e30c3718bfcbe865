import { createHash, createPublicKey, verify } from 'node:crypto';
import { Readable } from 'node:stream';
import { StringDecoder } from 'node:string_decoder';
import { createGunzip } from 'node:zlib';
import { Refusal } from '../store/refusal';
import { FORMAT, MEGA, MOST_BYTES, VERSION, type End, type Head, type Line } from './format';

type Read = { readonly head: Head } | { readonly line: Line };

/**
 * The lines of a bundle, each as it comes; what seals them is looked at behind the last, so nothing may count before that.
 * @param name of the file, for what is said of it
 */
export async function* readBundle(bytes: Uint8Array, name: string): AsyncGenerator<Read> {
  const hash = createHash('sha256');
  let count = 0;
  let end: End | undefined;
  for await (const text of linesOf(bytes, name)) {
    if (end) throw Refusal.of('bundle.changed', name);
    const read = parsed(text, name);
    if ('end' in read) {
      end = read as unknown as End;
      continue;
    }
    hash.update(`${text}\n`);
    if (count === 0) yield { head: headOf(read, name) };
    else yield { line: read as unknown as Line };
    count += 1;
  }
  if (!end)
    throw Refusal.of(count === 0 ? 'bundle.unreadable' : 'bundle.cut', name, {
      why: 'empty',
    } as never);
  const isWhole = end.end === count && end.sha256 === hash.digest('hex');
  if (!isWhole || !isSigned(end)) throw Refusal.of('bundle.changed', name);
}

/** Whole lines alone: what ends in the middle of one is told as that. */
async function* linesOf(bytes: Uint8Array, name: string): AsyncGenerator<string> {
  let unpacked = 0;
  let rest = '';
  const text = new StringDecoder('utf8');
  try {
    for await (const piece of Readable.from([bytes]).pipe(createGunzip())) {
      unpacked += (piece as Buffer).length;
      if (unpacked > MOST_BYTES)
        throw Refusal.of('bundle.large', name, { most: MOST_BYTES / MEGA });
      const lines = (rest + text.write(piece as Buffer)).split('\n');
      rest = lines.pop() ?? '';
      yield* lines;
    }
  } catch (error) {
    throw error instanceof Refusal ? error : brokenOff(error as Error, unpacked > 0, name);
  }
  if (rest !== '') throw Refusal.of('bundle.cut', name);
}

/** zlib's word for what ends too early. */
const CUT = 'Z_BUF_ERROR';

function brokenOff(error: Error, hasBegun: boolean, name: string): Refusal {
  const isCut = 'code' in error && error.code === CUT;
  if (isCut || hasBegun) return Refusal.of(isCut ? 'bundle.cut' : 'bundle.changed', name);
  return Refusal.of('bundle.unreadable', name, { why: error.message });
}

function parsed(text: string, name: string): Readonly<Record<string, unknown>> {
  try {
    const read: unknown = JSON.parse(text);
    if (typeof read === 'object' && read !== null) return read as Record<string, unknown>;
  } catch {
    // Told below.
  }
  throw Refusal.of('bundle.unreadable', name, { why: 'JSON' });
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

function headOf(read: Readonly<Record<string, unknown>>, name: string): Head {
  const head = read as unknown as Head;
  if (head.format !== FORMAT) throw Refusal.of('bundle.unreadable', name, { why: 'format' });
  if (head.version > VERSION)
    throw Refusal.of('bundle.newer', name, { have: head.version, most: VERSION });
  const isWhole =
    UUID.test(head.job?.id) &&
    UUID.test(head.server?.id) &&
    typeof head.job.name === 'string' &&
    typeof head.server.name === 'string' &&
    Array.isArray(head.base);
  if (!isWhole) throw Refusal.of('bundle.unreadable', name, { why: 'format' });
  return head;
}

function isSigned({ sha256, signature, publicKey }: End): boolean {
  try {
    const key = createPublicKey(publicKey);
    return verify(null, Buffer.from(sha256), key, Buffer.from(signature, 'base64'));
  } catch {
    return false;
  }
}
