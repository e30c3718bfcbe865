import { readEds, readGsdml, type Description, type NoDescription } from '@ipsonomo/core/describe';
import { fail, ok, refuse, type Issue, type IssueCode, type Result } from '@ipsonomo/core/net';
import { decodeText } from '../common/decode-text';
import { readXml } from './read-xml';

/** @returns refusals `file.noDevice`, `file.noIdentity`, `file.noText` and those of XML */
export function readDescription(name: string, bytes: Uint8Array): Result<Description, Issue> {
  if (bytes.length === 0) return fail({ code: 'file.empty', where: name });
  if (!isXml(bytes)) {
    const text = decodeText(bytes);
    if (text.includes('\u0000')) return fail({ code: 'file.noText', where: name });
    return described(name, readEds(text));
  }
  const xml = readXml(name, bytes);
  if (!xml.ok) return xml;
  const read = described(name, readGsdml(xml.value.root));
  if (!read.ok) return read;
  const unread = [...xml.value.unread, ...read.value.unread].sort((a, b) => a.line - b.line);
  return ok({ kinds: read.value.kinds, unread });
}

const REFUSED = {
  'no-device': 'file.noDevice',
  'no-identity': 'file.noIdentity',
} as const satisfies Readonly<Record<NoDescription, IssueCode>>;

const described = (name: string, read: Description | NoDescription): Result<Description, Issue> =>
  typeof read === 'string' ? refuse(REFUSED[read], name) : ok(read);

/** Does it begin with `<`, whichever of the Unicode encodings it is in? */
function isXml(bytes: Uint8Array): boolean {
  const first = [...bytes.subarray(0, 64)].find((byte) => !BLANK.has(byte));
  return first === 0x3c;
}

/** Byte order marks, the empty half of UTF-16, and white space. */
const BLANK = new Set([0xef, 0xbb, 0xbf, 0xff, 0xfe, 0x00, 0x09, 0x0a, 0x0d, 0x20]);
