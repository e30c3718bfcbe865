import { closeSync, existsSync, openSync, readSync } from 'node:fs';
import { traitsOf } from '@ipsonomo/core/answering';
import { optionView } from '@ipsonomo/language';
import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { formatIpv4, formatMac, UNSPECIFIED } from '@ipsonomo/core/net';
import {
  captureIssue,
  CaptureReader,
  DecodeError,
  kindOfMessage,
  tryDissect,
  type DhcpMessage,
  type PcapRecord,
} from '@ipsonomo/core/wire';
import { refuseInput, type OneCommand, type Output } from './output';

/** So much is read at once, in bytes. */
const PIECE = 1024 * 1024;

/**
 * The frames of a capture file, however large it is.
 * @throws DecodeError where it is none or ends within a frame
 */
export function* framesOfFile(path: string): Generator<PcapRecord> {
  const file = openSync(path, 'r');
  try {
    const reader = new CaptureReader();
    for (;;) {
      // Frames are parts of their piece: each piece is bytes of its own.
      const piece = new Uint8Array(PIECE);
      const length = readSync(file, piece);
      if (length === 0) break;
      yield* reader.push(piece.subarray(0, length));
    }
    reader.end();
  } finally {
    closeSync(file);
  }
}

/** Does something with a capture; what is wrong with the file is told. */
export function withCapture(path: string, output: Output, act: () => void): boolean {
  if (!existsSync(path)) return refuseInput(output, { code: 'file.missing', where: path });
  try {
    act();
    return true;
  } catch (error) {
    if (error instanceof DecodeError) return refuseInput(output, captureIssue(path, error));
    throw error;
  }
}

/** Every BootP and DHCP message of a capture, in its order. */
export const readCapture: OneCommand = (path, output) =>
  withCapture(path, output, () => printMessages(path, output));

function printMessages(path: string, { print, tell }: Output): void {
  let number = 0;
  let unread = 0;
  for (const { frame, at } of framesOfFile(path)) {
    number += 1;
    const found = tryDissect(frame);
    if (found instanceof DecodeError) unread += 1;
    else if (found.kind === 'dhcp') print(messageLine(found.dhcp, at));
  }
  if (unread > 0) tell(COMMAND_WORDS.framesUnread({ path, unread, all: number }));
}

/** @param at microseconds since 1970 */
function messageLine(message: DhcpMessage, at: number) {
  const { hostName, vendorClass, clientId } = traitsOf(message);
  const micros = String(at % 1_000_000).padStart(6, '0');
  return {
    time: `${new Date(Math.floor(at / 1000)).toISOString().slice(0, 19)}.${micros}Z`,
    kind: kindOfMessage(message),
    mac: formatMac(message.clientMac),
    /** What a reply gives; null in a request. */
    address: message.yourAddress === UNSPECIFIED ? null : formatIpv4(message.yourAddress),
    names: {
      host: hostName ?? null,
      vendorClass: vendorClass ?? null,
      clientId: clientId ?? null,
    },
    options: (message.options ?? []).map(optionView),
  };
}
