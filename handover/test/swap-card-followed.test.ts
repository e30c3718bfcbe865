import { siteOfPlan, withMistakes } from '@ipsonomo/practice';
import { formatMac } from '@ipsonomo/core/net';
import { guideOf, SHELF, type Way } from '@ipsonomo/core/plan';
import { Bench } from '../../practice/test/helpers';
import { device, ip, planWith, written } from './samples';
import { inFile, run } from './run';
import { withProgram } from './with-program';

// R-SWAP-CARD: whoever has nothing but the card replaces the device. A spare as its maker delivers it stands on the practice
// site; what is done to it is read from the words and figures of the printed page, and from nowhere else.

/** Every kind that is given its address without a laptop at its switches or its keypad, one of each. */
const SPARES = (['switches', 'keypad'] as const satisfies readonly Way[]).flatMap((way) =>
  SHELF.filter((kind) =>
    way === 'switches' ? kind.switches && guideOf(kind, way) : guideOf(kind, way)?.steps.length,
  ).map((kind) => ({ way, kind })),
);
const plan = planWith(
  SPARES.map(({ way, kind }, at) =>
    device(String(at), way, { address: ip(`172.22.40.${31 + at}`) }, { kindId: kind.id }),
  ),
);

const planned = siteOfPlan(plan, 5);
const { site } = withMistakes(plan, planned, { kind: 'chosen', which: [] }, 5);

interface Step {
  readonly words: string;
  /** The lines below it, as they stand. */
  readonly more: readonly string[];
}

function stepsOf(page: string): readonly Step[] {
  const steps: { words: string; more: string[] }[] = [];
  for (const line of page.split('\n')) {
    const [, words] = /^\s*\d+\. (.+)$/.exec(line) ?? [];
    if (words !== undefined) steps.push({ words, more: [] });
    else steps.at(-1)?.more.push(line);
  }
  return steps;
}

/**
 * The figures below the switches, left to right: over them stand their labels and, of a row of levers, what each is worth,
 * and then there is the drawing itself.
 */
function figuresOf(lines: readonly string[]): readonly number[] {
  const drawn = lines.slice(lines.findIndex((line) => line.trim().endsWith('.')) + 1);
  const below = drawn.slice(drawn.findIndex((line) => line.trim() === ''));
  const figures = below.flatMap((line) =>
    [...line.matchAll(/\S+/g)].map((one) => [one.index, parseInt(one[0], 36)] as const),
  );
  return figures.sort(([one], [other]) => one - other).map(([, figure]) => figure);
}

/** Hands that know what words mean, and nothing of the plan. */
class Hands {
  readonly bench = new Bench(site);
  /** What answered in the end. */
  answered: readonly string[] = [];

  constructor(private readonly at: string) {}

  private readonly known: readonly (readonly [
    RegExp,
    (word: string, more: readonly string[]) => void,
  ])[] = [
    [/^Take a spare of the same kind/, () => undefined],
    [/^Switch its power off and take/, () => this.act({ kind: 'power', on: false })],
    [/^Plug the network cable in as it was/, () => this.act({ kind: 'cable', on: true })],
    [/^Set its switches as drawn/, (_, more) => this.turn(figuresOf(more))],
    [/^Switch its power on/, (_, more) => this.start(/about (\d+) s/.exec(more.join(' '))?.[1])],
    [/^At its keypad, type (\S+)/, (address) => this.act({ kind: 'type', address })],
    [
      /^Switch its power off and on again/,
      (_, more) => {
        this.act({ kind: 'power', on: false });
        this.start(/about (\d+) s/.exec(more.join(' '))?.[1]);
      },
    ],
    [/^Bring its parameters back/, () => undefined],
    [/^Look whether (\S+) answers/, (address) => this.look(address)],
  ];

  follow({ words, more }: Step): boolean {
    const found = this.known.find(([sentence]) => sentence.test(words));
    const [sentence, does] = found ?? [];
    does?.(sentence?.exec(words)?.[1] ?? '', more);
    // What a maker wants first is done as it says.
    return found !== undefined || more.join(' ').includes('before anything else');
  }

  private act(action: Record<string, unknown>): void {
    this.bench.site.act({ ...action, device: this.at } as never, this.bench.now);
    this.bench.advance(1000);
  }

  private turn(positions: readonly number[]): void {
    this.act({ kind: 'turn', positions });
  }

  private start(seconds = ''): void {
    this.act({ kind: 'power', on: true });
    this.bench.advance((Number(seconds) + 10) * 1000);
  }

  private look(address: string): void {
    this.bench.advance(5000);
    this.answered = this.bench.askArp(address);
  }
}

let pages: readonly string[] = [];
beforeAll(async () => {
  const { files } = await written('swap-cards', plan);
  const bytes = files[0]?.content as Uint8Array;
  pages = run('pdftotext', '-layout', inFile(bytes, 'cards.pdf'), '-').out.split('\f');
});

withProgram('pdftotext', '-v').each(SPARES.map((one, at) => [one.way, one.kind.name, at] as const))(
  'R-SWAP-CARD: by its card alone, at its %s: %s',
  (_way, _name, at) => {
    const page = pages[at] ?? '';
    const hands = new Hands(`${at}-at`);
    const spare = planned.devices.find(({ id }) => id === `${at}-at`);
    expect(page).toContain('No laptop is needed');
    expect(hands.bench.askArp(`172.22.40.${31 + at}`)).toEqual([]);
    for (const step of stepsOf(page))
      expect([step.words, hands.follow(step)]).toEqual([step.words, true]);
    expect(hands.answered).toEqual([spare && formatMac(spare.mac)]);
  },
);
