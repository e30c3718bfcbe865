import { fail, ok, type Issue, type Result } from '@ipsonomo/core/net';
import { planOf, type Plan } from '@ipsonomo/core/plan';
import { estimateRound } from '@ipsonomo/core/round';
import { siteOfPlan, withMistakes } from '@ipsonomo/practice';
import { refuseInput, type Command } from './output';
import { readPlan } from './plan';

// How long the round of a plan takes, before anybody drives to the site.

const MOST_PEOPLE = 4;
/** Of so many calls one meets a mistake of the site. */
const CALLS_A_MISTAKE = 20;

interface Asked {
  readonly people: number;
  readonly seed: number | undefined;
}

/** The words behind the plan: `--people N`, `--faults SEED`. */
function readAsked(words: readonly string[]): Result<Asked> {
  let people = 1;
  let seed: number | undefined;
  for (let at = 0; at < words.length; at += 2) {
    const [word = '', text = ''] = [words[at], words[at + 1]];
    const value = /^\d{1,9}$/.test(text) ? Number(text) : NaN;
    const isPeople = word === '--people' && value >= 1 && value <= MOST_PEOPLE;
    if (isPeople) people = value;
    else if (word === '--faults' && !Number.isNaN(value)) seed = value;
    else return fail({ code: 'rehearse.asked', where: `${word} ${text}`.trim() } satisfies Issue);
  }
  return ok({ people, seed });
}

/** The mistakes that a seed makes in the plan: the same ones as in a rehearsal of it. */
function mistakesIn(plan: Plan, seed: number) {
  const site = siteOfPlan(plan, seed);
  const count = Math.max(1, Math.round(site.devices.length / CALLS_A_MISTAKE));
  return withMistakes(plan, site, { kind: 'surprise', count }, seed).mistakes;
}

/** One line a mistake, one a cabinet, and one for the whole: seconds, who waited for what, what would save how much. */
export const rehearse: Command = ([path = '', ...words], output) => {
  const asked = readAsked(words);
  if (!asked.ok) return refuseInput(output, asked.error);
  const doc = readPlan(path, output);
  if (!doc) return false;
  const plan = planOf(doc);
  const { people, seed } = asked.value;
  const mistakes = seed === undefined ? [] : mistakesIn(plan, seed);
  for (const { kind, interfaceId } of mistakes) output.print({ mistake: kind, at: interfaceId });
  const at = new Set(mistakes.map(({ interfaceId }) => interfaceId));
  const { cabinets, savings, ...whole } = estimateRound(plan, { people, mistakes: at });
  for (const cabinet of cabinets) output.print(cabinet);
  output.print({ ...whole, savings: Object.fromEntries(savings) });
  return true;
};
