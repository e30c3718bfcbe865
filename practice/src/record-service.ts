import type { MacAddress } from '@ipsonomo/core/net';
import type { Kind } from '@ipsonomo/core/plan';
import {
  DecodeError,
  decodeWith,
  encodeWith,
  identification,
  realModules,
  RECORD,
  recordAnswer,
  recordQuestion,
  type RecordQuestion,
} from '@ipsonomo/core/wire';
import { numbersOf, serialText } from './identity';
import type { Quirk } from './quirks';

/** Read errors as a station writes them: decode and code (IEC 61158-6-10; from memory). */
const NO_SUCH_INDEX = 0xde80_b000;
/** The station itself, and where it is plugged in. */
const HEAD = { slot: 0, ident: 1, submodules: [{ subslot: 1, ident: 1 }] };

export interface RecordStation {
  readonly kind: Kind;
  readonly mac: MacAddress;
  readonly quirks: ReadonlySet<Quirk>;
}

/** What is plugged into its slots: all that fits, each in its first slot. */
const modulesOf = ({ kind, quirks }: RecordStation) =>
  kind.modules.flatMap(({ firstSlot, ident }, at) => {
    const isOther = quirks.has('other-module') && at === kind.modules.length - 1;
    const plugged = isOther ? kind.modules[0]?.ident : ident;
    return plugged === undefined
      ? []
      : [{ slot: firstSlot, ident: plugged, submodules: [{ subslot: 1, ident: 1 }] }];
  });

function recordOf(station: RecordStation, { index }: RecordQuestion): Uint8Array | undefined {
  const { kind, mac, quirks } = station;
  if (index === RECORD.modules) return encodeWith(realModules, [HEAD, ...modulesOf(station)]);
  if (index !== RECORD.identification) return undefined;
  const [major, minor] = numbersOf(kind, quirks);
  return encodeWith(identification, {
    ...{ vendor: kind.station?.vendor ?? 0, orderNumber: kind.orderNumber || kind.name },
    ...{ serial: serialText(mac), hardware: 1, software: ['V', major, minor, 0] },
  });
}

/** What a station answers to a call for one of its records; nothing where it is not meant, or it cannot be read. */
export function answerRecord(station: RecordStation, call: Uint8Array): Uint8Array | undefined {
  const { kind } = station;
  try {
    const question = decodeWith(recordQuestion, call);
    const isMeant =
      question.vendor === kind.station?.vendor && question.device === kind.station.device;
    if (!isMeant) return undefined;
    const data = recordOf(station, question);
    const told = data ? { status: 0, data } : { status: NO_SUCH_INDEX, data: new Uint8Array(0) };
    return encodeWith(recordAnswer, { ...question, ...told });
  } catch (error) {
    if (error instanceof DecodeError) return undefined;
    throw error;
  }
}
