import { randomBytes } from 'node:crypto';
import type { Kind } from '@ipsonomo/core/plan';
import type { ModuleFound, Said } from '@ipsonomo/core/proof';
import {
  decodeWith,
  encodeWith,
  identification,
  realModules,
  RECORD,
  recordAnswer,
  recordQuestion,
} from '@ipsonomo/core/wire';
import { Broken } from '../talk/inbox';
import { readable } from './talk';

/** What a station tells in its records, over UDP and without a connection. */
export interface StationTold {
  readonly said: Said | undefined;
  readonly modules: readonly ModuleFound[] | undefined;
}

type Ask = (data: Uint8Array) => Promise<Uint8Array | string>;
type Numbers = NonNullable<Kind['station']>;

/** An answer has to fit one packet: that is room for about ninety modules. */
const MOST = 1300;

/** R-MODULES: who the station is, and what is plugged into it slot by slot. */
export async function askStation(ask: Ask, station: Numbers): Promise<StationTold> {
  const who = await askRecord(ask, station, RECORD.identification, 1);
  const said = who && (await readable(() => Promise.resolve(saidBy(who))));
  // Who is silent is not asked a second time.
  const real = who && (await askRecord(ask, station, RECORD.modules, 2));
  const modules = real && (await readable(() => Promise.resolve(decodeWith(realModules, real))));
  return { said, modules: modules?.map(({ slot, ident }) => ({ slot, ident, name: '' })) };
}

/** Undefined where it is refused, nothing comes, or what comes is no answer to this. */
const askRecord = (
  ask: Ask,
  station: Numbers,
  index: number,
  sequence: number,
): Promise<Uint8Array | undefined> =>
  readable(async () => {
    const activity = randomBytes(16);
    const place = { slot: 0, subslot: 1, index };
    const answered = await ask(
      encodeWith(recordQuestion, { ...station, ...place, activity, sequence, most: MOST }),
    );
    if (typeof answered === 'string') return undefined;
    const answer = decodeWith(recordAnswer, answered);
    // A late answer to another question would be about something else.
    if (!activity.equals(answer.activity)) throw new Broken('record', 'other');
    return answer.status === 0 ? answer.data : undefined;
  });

function saidBy(data: Uint8Array): Said {
  const { orderNumber, serial, hardware, software } = decodeWith(identification, data);
  const [, ...numbers] = software;
  return {
    ...{ by: 'PROFINET', identity: undefined, product: orderNumber, orderNumber, serial },
    ...{ revision: numbers.join('.'), hardware: String(hardware), connection: undefined },
  };
}
