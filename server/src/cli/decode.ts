import { frameView, messageView } from '@ipsonomo/language';
import {
  DecodeError,
  decodeWith,
  dhcpMessage,
  dissect,
  ETHERTYPE,
  parseHex,
} from '@ipsonomo/core/wire';
import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { refuseInput, unreadable, type OneCommand } from './output';

const BOOTP_FIXED = 236; // RFC 951 §3, without the vendor area
const knownTypes: ReadonlySet<number> = new Set(Object.values(ETHERTYPE));

/** Operation 1 or 2, hardware Ethernet with six bytes, and long enough (RFC 951 §3). */
const looksLikeBootp = (bytes: Uint8Array): boolean =>
  bytes.length >= BOOTP_FIXED &&
  (bytes[0] === 1 || bytes[0] === 2) &&
  bytes[1] === 1 &&
  bytes[2] === 6;

const etherTypeOf = (bytes: Uint8Array): number => ((bytes[12] ?? 0) << 8) | (bytes[13] ?? 0);

/** An Ethernet frame, or a BootP/DHCP message without the headers around it. */
export const decodeHex: OneCommand = (input, output) => {
  const read = parseHex(input);
  if (!read.ok) return refuseInput(output, read.error);
  const bytes = read.value;
  const bare = looksLikeBootp(bytes) && !knownTypes.has(etherTypeOf(bytes));
  try {
    output.print(bare ? messageView(decodeWith(dhcpMessage, bytes)) : frameView(dissect(bytes)));
    return true;
  } catch (error) {
    if (!(error instanceof DecodeError)) throw error;
    return refuseInput(
      output,
      unreadable(bare ? COMMAND_WORDS.theMessage : COMMAND_WORDS.theFrame, error),
    );
  }
};
