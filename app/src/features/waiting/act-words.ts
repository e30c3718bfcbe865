import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import type { Plan } from '@ipsonomo/core/plan';
import { findInterface } from '@ipsonomo/core/plan';
import { acts, type WaitingAct } from '../../data';

type Body = Readonly<Record<string, unknown>>;

const textOf = (body: Body, field: string): string => {
  const value = body[field];
  return typeof value === 'string' ? value : '';
};

function editWords(body: Body): string {
  const { edits } = body;
  const count = Array.isArray(edits) ? edits.length : 0;
  const why = textOf(body, 'why');
  return why === '' ? WAITING_WORDS.changes({ count }) : WAITING_WORDS.changesWhy({ count, why });
}

const WORDS: Readonly<Partial<Record<WaitingAct['act'], (body: Body) => string>>> = {
  edit: editWords,
  bind: (body) => WAITING_WORDS.bound({ mac: textOf(body, 'mac') }),
  unbind: () => WAITING_WORDS.unbound,
  sayKept: () => WAITING_WORDS.saidKept,
  sayGiven: () => WAITING_WORDS.saidGiven,
  saySetBack: (body) => WAITING_WORDS.saidSetBack({ reason: textOf(body, 'reason') }),
  sayWritten: (body) =>
    WAITING_WORDS.saidWritten({ place: textOf(body, 'place'), is: textOf(body, 'is') }),
  note: (body) =>
    WAITING_WORDS.noted({
      text: textOf(body, 'text').slice(0, 120),
      hasPhoto: textOf(body, 'photo') === '' ? 'no' : 'yes',
    }),
  readOff: (body) => WAITING_WORDS.readOff({ text: textOf(body, 'text').slice(0, 120) }),
};

/** What somebody did, in a few words. */
export const actWords = ({ act, body }: WaitingAct): string =>
  WORDS[act]?.((body ?? {}) as Body) ?? WAITING_WORDS.unknownAct({ act });

/** Whether this version knows how to send it. */
export const isKnown = ({ act }: WaitingAct): boolean =>
  Object.hasOwn(acts, act) && acts[act].mayWait;

/** The device it was done to; undefined where it was done to the plan. */
export function deviceWords(one: WaitingAct, plan: Plan | undefined): string | undefined {
  const id = one.params['interface'];
  if (id === undefined) return undefined;
  const found = plan && findInterface(plan, id);
  return found ? found.device.title : WAITING_WORDS.unknownDevice;
}
