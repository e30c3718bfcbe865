import { ok, refuse, type Result } from '../net';

const MAX_NAME = 240;
const MAX_LABEL = 63;

/**
 * R-STATION-NAME: the name of a station on the wire (IEC 61158-6-10, from memory): 1–240 characters,
 * labels of 1–63 between dots, lower-case letters, digits, hyphens, no hyphen at a label's ends; not
 * of the form n.n.n.n; the first label neither `port-000` nor `port-000-00000`; `--` only after `xn`.
 * Nothing is made small here: a name with capitals is refused, because the wire compares bytes.
 * @returns refusals `station.*`; `where` is the label or letter that is wrong
 */
export function parseStationName(text: string): Result<string> {
  if (text === '') return refuse('station.empty', text);
  if (text.length > MAX_NAME) return refuse('station.length', text, { have: text.length });
  const labels = text.split('.');
  for (const label of labels) {
    if (label.length < 1 || label.length > MAX_LABEL)
      return refuse('station.label', text, { have: label.length });
    const letter = /[^a-z0-9-]/.exec(label)?.[0];
    if (letter !== undefined)
      return refuse(/[A-Z]/.test(letter) ? 'station.capital' : 'station.letter', letter, { text });
    if (label.startsWith('-') || label.endsWith('-')) return refuse('station.hyphen', label);
    if (/--/.test(label) && !/^xn--/.test(label)) return refuse('station.doubleHyphen', label);
  }
  if (labels.length === 4 && labels.every((label) => /^[0-9]{1,3}$/.test(label)))
    return refuse('station.numeric', text);
  if (/^port-[0-9]{3}(-[0-9]{5})?$/.test(labels[0] ?? ''))
    return refuse('station.port', labels[0] ?? '');
  return ok(text);
}
