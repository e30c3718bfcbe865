import { isDeviceMac, macDigits, parseMac, type MacAddress } from './mac';
import { ok, refuse, type Result } from './result';

/** What was read off a printed label, and which letters had to be repaired to read it. */
export interface LabelReading {
  readonly mac: MacAddress;
  /** Letters that are not hex and what they were taken for, in the order of the text. */
  readonly repairs: readonly { readonly from: string; readonly to: string }[];
}

/** Letters that are no hex digits but look like one: they can only mean that digit. */
const repairTable: Readonly<Record<string, string>> = {
  O: '0',
  I: '1',
  L: '1',
  Z: '2',
  S: '5',
  G: '6',
};

/** Hex digits that are mistaken for one another on a worn label (common practice, no source). */
const lookAlikes: readonly string[] = ['8B', '0D', '68', '56', '38', '17', 'EF'];

const looksAlike = (a: string, b: string): boolean =>
  a !== b && lookAlikes.some((pair) => pair.includes(a) && pair.includes(b));

/**
 * Reads a label typed in any notation and repairs letters that cannot be hex.
 * @example parseLabel('O2-4C-7A-1D-8O-D3') // mac 02:4c:7a:1d:80:d3, two repairs O→0
 * @returns the refusals of a MAC, and `mac.group` for a group or all-zero address.
 */
export function parseLabel(text: string): Result<LabelReading> {
  const repairs: { from: string; to: string }[] = [];
  const plain = text
    .trim()
    .replace(/^(mac|mac[- ]?id|id)\s*:?\s+/i, '')
    .replace(/[OILZSG]/gi, (letter) => {
      const to = repairTable[letter.toUpperCase()] ?? letter;
      repairs.push({ from: letter, to });
      return to;
    });
  const mac = parseMac(plain);
  if (!mac.ok) return mac;
  if (!isDeviceMac(mac.value)) return refuse('mac.group', text);
  return ok({ mac: mac.value, repairs });
}

/** One of the twelve places of two MACs held against each other. */
export interface DigitCheck {
  readonly label: string;
  readonly heard: string;
  readonly same: boolean;
  /** The two digits are often mistaken for one another. */
  readonly alike: boolean;
}

/** The label check: place by place, most significant first. */
export function checkLabel(label: MacAddress, heard: MacAddress): readonly DigitCheck[] {
  const digits = macDigits(heard);
  return [...macDigits(label)].map((digit, place) => {
    const other = digits[place] ?? '';
    return { label: digit, heard: other, same: digit === other, alike: looksAlike(digit, other) };
  });
}

export type LabelVerdict =
  | { readonly kind: 'same' }
  /** One place differs and its digits look alike: look once more. */
  | { readonly kind: 'alike'; readonly place: number }
  /** The last byte is near: the sticker of a device with several ports may bear the first. */
  | { readonly kind: 'near'; readonly distance: number }
  | { readonly kind: 'other'; readonly places: number };

/** R-LABEL: what the label check comes to. A near MAC is a hint and never a match. */
export function judgeLabel(label: MacAddress, heard: MacAddress): LabelVerdict {
  if (label === heard) return { kind: 'same' };
  const wrong = checkLabel(label, heard).flatMap((check, place) =>
    check.same ? [] : [{ place, alike: check.alike }],
  );
  const [first] = wrong;
  if (first && wrong.length === 1 && first.alike) return { kind: 'alike', place: first.place };
  const distance = heard - label;
  if (Math.abs(distance) <= 4) return { kind: 'near', distance };
  return { kind: 'other', places: wrong.length };
}
