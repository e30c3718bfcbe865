import { parseIpv4, type Ipv4, type Issue } from '../net';
import {
  faceDefects,
  type SwitchAct,
  type SwitchElement,
  type SwitchFace,
  type SwitchMeaning,
  type SwitchUse,
} from '../switches';
import { PROTOCOLS, type FactoryState, type Kind, type Pinning } from './kind';
import { ENIP, guide, HTTP, MODBUS, OPCUA, role, STAYS, toKind } from './shelf/build';
import { OTHER_DEVICE } from './shelf/other';
import { isAsking, WAYS, type Way } from './words';

// A kind in six questions, as a person answers them: maker, name, ways, how it comes, switches, what it speaks.

/** How a device comes from its maker, as it is asked. */
export const FACTORY_ANSWERS = [
  'asks-bootp',
  'asks-dhcp',
  'fixed',
  'switches',
  'nameless',
  'unknown',
] as const;

/** What a value of the switches can mean, as it is asked. */
export const ACT_ANSWERS = [
  'last-number',
  'host-part',
  'name',
  'asks-bootp',
  'asks-dhcp',
  'fixed',
  'stored',
  'factory',
  'locked',
] as const;

export interface ElementAnswer {
  readonly kind: SwitchElement['kind'];
  readonly label: string;
  /** Of a dial. */
  readonly positions: string;
  /** Of a dial one number; of a row one for each switch, left to right. */
  readonly weights: string;
  readonly use: SwitchUse;
}

export interface MeaningAnswer {
  readonly from: string;
  readonly to: string;
  /** The value of the mode switches; empty: any. */
  readonly mode: string;
  readonly act: (typeof ACT_ANSWERS)[number];
  /** The address, or the pattern of the name. */
  readonly text: string;
}

export interface KindAnswers {
  readonly maker: string;
  readonly name: string;
  readonly ways: readonly Way[];
  readonly factory: (typeof FACTORY_ANSWERS)[number];
  readonly factoryAddress: string;
  readonly elements: readonly ElementAnswer[];
  readonly meanings: readonly MeaningAnswer[];
  readonly speaks: readonly (typeof PROTOCOLS)[number][];
  readonly hasPage: boolean;
  readonly answersPing: boolean;
}

export const NO_ANSWERS: KindAnswers = {
  ...{ maker: '', name: '', ways: [], factory: 'unknown', factoryAddress: '' },
  ...{ elements: [], meanings: [], speaks: [], hasPage: false, answersPing: true },
};

/** A dial as most are: ten positions, worth one each. */
export const A_DIAL: ElementAnswer = {
  ...{ kind: 'dial', label: '', positions: '10', weights: '1', use: 'number' },
};

/** A row of eight, the heaviest left. */
export const A_DIP_ROW: ElementAnswer = {
  ...{ kind: 'dip', label: '', positions: '2', weights: '128 64 32 16 8 4 2 1', use: 'number' },
};

export const A_MEANING: MeaningAnswer = {
  ...{ from: '1', to: '254', mode: '', act: 'last-number', text: '' },
};

/** Where something of the answers is wrong: `maker`, `elements.0.label`, `meanings.1.text` … */
export type AnswerIssues = Readonly<Record<string, Issue>>;

export interface ReadAnswers {
  /** Undefined while something is wrong. */
  readonly kind: Kind | undefined;
  /** The switches, as soon as they can be drawn. */
  readonly face: SwitchFace | undefined;
  readonly issues: AnswerIssues;
}

/** Reads the answers as a kind of the plan's own. */
export function kindOfAnswers(answers: KindAnswers, id: string): ReadAnswers {
  const issues: Record<string, Issue> = {};
  const note = (where: string, issue: Issue): undefined => void (issues[where] ??= issue);
  const { ways, factory, speaks } = answers;
  const [maker, name] = [answers.maker.trim(), answers.name.trim()];
  if (maker === '') note('maker', { code: 'cell.empty', where: 'maker' });
  if (name === '') note('name', { code: 'cell.empty', where: 'name' });
  if (ways.length === 0) note('ways', { code: 'kind.noWay', where: name });
  const face = faceOf(answers, note);
  const wantsSwitches = ways.includes('switches') || factory === 'switches';
  if (wantsSwitches && answers.elements.length === 0)
    note('elements', { code: 'kind.noSwitches', where: name });
  const state = factoryOf(answers, note);
  const kind =
    state && Object.keys(issues).length === 0
      ? toKind({
          ...{ id, maker, name, role: 'io', stem: stemOf(name), factory: state },
          ways: WAYS.filter((way) => ways.includes(way)).map((way) => guide(way)),
          ...{ switches: face, pinning: pinningOf(ways), answersPing: answers.answersPing },
          services: [
            ...(answers.hasPage || ways.includes('web-page') ? [HTTP] : []),
            ...speaks.flatMap((one) => SERVICES[one]),
          ],
          roles: speaks.map((one) => role(one, 'serves')),
        })
      : undefined;
  return { kind, face, issues };
}

type Note = (where: string, issue: Issue) => undefined;

/** PROFINET needs no port: it is spoken over layer 2. */
const SERVICES: Readonly<Record<(typeof PROTOCOLS)[number], Kind['services']>> = {
  'EtherNet/IP': [ENIP],
  PROFINET: [],
  'Modbus/TCP': [MODBUS],
  'OPC UA': [OPCUA],
};

/** Who asks has to be told to keep what it was given; all others keep what they were set to. */
const pinningOf = (ways: readonly Way[]): Pinning =>
  ways.some(isAsking) ? OTHER_DEVICE.pinning : STAYS;

/** What a proposed host name is made of: the letters and digits of the first word that has some. */
function stemOf(name: string): string {
  const words = name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^a-z0-9]+/);
  return (words.find((word) => /^[a-z]/.test(word)) ?? OTHER_DEVICE.stem).slice(0, 16);
}

function factoryOf({ factory, factoryAddress }: KindAnswers, note: Note): FactoryState | undefined {
  switch (factory) {
    case 'asks-bootp':
      return { kind: 'asks', by: 'bootp' };
    case 'asks-dhcp':
      return { kind: 'asks', by: 'dhcp' };
    case 'fixed': {
      const address = addressOf(factoryAddress, 'factoryAddress', note);
      return address === undefined ? undefined : { kind: 'fixed', address };
    }
    default:
      return { kind: factory };
  }
}

function addressOf(text: string, where: string, note: Note): Ipv4 | undefined {
  const read = parseIpv4(text.trim());
  return read.ok ? read.value : note(where, read.error);
}

/** Drawn as soon as every element can be; undefined where there are no switches. */
function faceOf({ elements, meanings }: KindAnswers, note: Note): SwitchFace | undefined {
  const drawn = elements.map((one, at) => elementOf(one, `elements.${at}`, note));
  const meant = meanings.map((one, at) => meaningOf(one, `meanings.${at}`, note));
  const whole = drawn.filter((one) => one !== undefined);
  if (elements.length === 0 || whole.length < elements.length) return undefined;
  const face = {
    elements: whole,
    meanings: meant.filter((one) => one !== undefined),
    base: undefined,
  };
  for (const issue of faceDefects(face)) {
    const at = issue.code === 'switches.label' ? Number(issue.where) - 1 : -1;
    if (at >= 0) note(`elements.${at}.label`, issue);
    else if (meant.length === 0) note('meanings', issue);
  }
  return face;
}

const MOST_WEIGHT = 65_536;

/** A number from `least` to `most`, told where it is none. */
function numberOf(
  text: string,
  [least, most]: readonly [number, number],
  where: string,
  note: Note,
): number | undefined {
  const value = /^\d{1,5}$/.test(text.trim()) ? Number(text) : NaN;
  if (value >= least && value <= most) return value;
  return note(where, { code: 'switches.number', where: text.trim(), facts: { least, most } });
}

function elementOf(
  { kind, label: typed, positions: count, weights: worth, use }: ElementAnswer,
  where: string,
  note: Note,
): SwitchElement | undefined {
  const label = typed.trim();
  const least = use === 'other' ? 0 : 1;
  const weights = worth
    .split(/[\s,;]+/)
    .filter((one) => one !== '')
    .map((one) => numberOf(one, [least, MOST_WEIGHT], `${where}.weights`, note));
  const good = weights.filter((one) => one !== undefined);
  if (weights.length === 0)
    return note(`${where}.weights`, { code: 'switches.weight', where: label });
  if (good.length < weights.length) return undefined;
  if (kind === 'dip') return { kind, label, weights: good.slice(0, 16), use };
  const positions = numberOf(count, [2, 36], `${where}.positions`, note);
  const [weight] = good;
  if (positions === undefined || weight === undefined) return undefined;
  return { kind, label, positions, look: 'rotary', weight, use };
}

const MOST_VALUE = 65_535;

function meaningOf(answer: MeaningAnswer, where: string, note: Note): SwitchMeaning | undefined {
  const number = (text: string, field: string) =>
    numberOf(text, [0, MOST_VALUE], `${where}.${field}`, note);
  const [from, to] = [number(answer.from, 'from'), number(answer.to, 'to')];
  const mode = answer.mode.trim() === '' ? undefined : number(answer.mode, 'mode');
  const act = actOf(answer, `${where}.text`, note);
  if (from === undefined || to === undefined || !act) return undefined;
  if (to < from) return note(`${where}.to`, { code: 'switches.order', where: `${from}–${to}` });
  return { mode, from, to, act };
}

function actOf({ act, text }: MeaningAnswer, where: string, note: Note): SwitchAct | undefined {
  switch (act) {
    case 'asks-bootp':
      return { kind: 'asks', by: 'bootp' };
    case 'asks-dhcp':
      return { kind: 'asks', by: 'dhcp' };
    case 'fixed': {
      const address = addressOf(text, where, note);
      return address === undefined ? undefined : { kind: 'fixed', address };
    }
    case 'name':
      return /\{n+\}/.test(text)
        ? { kind: 'name', pattern: text.trim() }
        : note(where, { code: 'switches.pattern', where: text.trim() });
    default:
      return { kind: act };
  }
}
