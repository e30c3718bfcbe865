import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { formatIpv4, parseIpv4, toPrefixLength, prefixOf } from '@ipsonomo/core/net';
import { findShelfKind, SHELF } from '@ipsonomo/core/plan';
import {
  addressBySwitches,
  readSwitches,
  setForAddress,
  type SwitchFace,
} from '@ipsonomo/core/switches';
import { refuseInput, type Command, type Output } from './output';

/**
 * `switches KIND ADDRESS`: how they must stand. `switches KIND --read 0,8,6`: what they say. The
 * network of a last number is the /24 of the address, or the one the kind brings.
 */
export const switches: Command = ([id = '', ...rest], output) => {
  const kind = findShelfKind(id);
  if (!kind) {
    const known = SHELF.filter((one) => one.switches).map((one) => one.id);
    return refuseInput(output, {
      code: 'kind.unknown',
      where: id,
      facts: { known: known.join(', ') },
    });
  }
  if (!kind.switches) return refuseInput(output, { code: 'switches.none', where: kind.name });
  const [first = '', positions] = rest;
  return first === '--read'
    ? read(kind.switches, positions ?? '', output)
    : set(kind.switches, first, output);
};

function read(face: SwitchFace, text: string, output: Output): boolean {
  const positions = text.split(',').map((one) => (/^\d+$/.test(one.trim()) ? Number(one) : NaN));
  const reading = readSwitches(face, positions);
  if (!reading.ok) return refuseInput(output, reading.error);
  const { value, mode, act } = reading.value;
  const address = face.base && addressBySwitches(face, reading.value, face.base);
  output.print({
    ...{ value, mode, meaning: act?.kind ?? COMMAND_WORDS.notAllowed },
    ...(act?.kind === 'name' ? { pattern: act.pattern } : {}),
    ...(address === undefined ? {} : { address: formatIpv4(address) }),
  });
  return true;
}

function set(face: SwitchFace, text: string, output: Output): boolean {
  const address = parseIpv4(text);
  if (!address.ok) return refuseInput(output, address.error);
  const network = face.base ?? prefixOf(address.value, toPrefixLength(24));
  const setting = setForAddress(face, address.value, network);
  if (!setting.ok) return refuseInput(output, setting.error);
  const { positions, value, mode } = setting.value;
  output.print({ positions, labels: labelsOf(face), value, mode });
  return true;
}

/** The name of each position, left to right. */
const labelsOf = (face: SwitchFace): readonly string[] =>
  face.elements.flatMap((one) =>
    one.kind === 'dial' ? [one.label] : one.weights.map((weight) => `${one.label} ${weight}`),
  );
