import { HeardBook, type HeardStation } from '@ipsonomo/core/heard';
import { fail, ok, type Result } from '@ipsonomo/core/net';
import { captureIssue, CaptureReader, DecodeError } from '@ipsonomo/core/wire';

/** What a capture comes to. */
export interface HeardCapture {
  readonly name: string;
  readonly stations: readonly HeardStation[];
  readonly frames: number;
  /** Those of them that could not be read. */
  readonly unread: number;
  /** It ends in the middle of a frame, as one does that was being written. */
  readonly isCut: boolean;
}

/**
 * Reads a capture piece by piece, so that one of any size can be read, and the page stays alive meanwhile.
 * @param told how many bytes were read
 * @returns refusals `pcap.…`
 */
export async function hearCapture(
  name: string,
  pieces: ReadableStream<Uint8Array>,
  told: (bytes: number) => void,
): Promise<Result<HeardCapture>> {
  const reader = new CaptureReader();
  const book = new HeardBook();
  const from = pieces.getReader();
  let bytes = 0;
  let isCut = false;
  try {
    for (;;) {
      const { done, value } = await from.read();
      if (done) break;
      for (const record of reader.push(value)) book.take(record);
      told((bytes += value.length));
    }
    reader.end();
  } catch (error) {
    if (!(error instanceof DecodeError)) throw error;
    await from.cancel();
    isCut = error.code === 'pcap.cut' && book.frames > 0;
    if (!isCut) return fail(captureIssue(name, error));
  }
  const { frames, unread } = book;
  return ok({ name, stations: book.stations(), frames, unread, isCut });
}

/** @throws TypeError where the server does not answer */
export async function fetchPieces(path: string): Promise<ReadableStream<Uint8Array>> {
  const { body, ok: isThere } = await fetch(path);
  if (!isThere || !body) throw new TypeError(path);
  return body;
}
