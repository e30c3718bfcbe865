import { must, parseIpv4, parsePrefix } from '../../src/net';
import {
  A_DIAL,
  A_DIP_ROW,
  A_MEANING,
  docOf,
  kindOfAnswers,
  NO_ANSWERS,
  readEdits,
  type KindAnswers,
} from '../../src/plan';
import { addressBySwitches, readSwitches, setForAddress } from '../../src/switches';

const answers = (fields: Partial<KindAnswers> = {}): KindAnswers => ({
  ...NO_ANSWERS,
  ...{ maker: 'Ollerby', name: 'Prüf-Taster 7', ways: ['bootp'] },
  ...fields,
});
const TENS = { ...A_DIAL, label: '×10', weights: '10' };
const ONES = { ...A_DIAL, label: '×1' };
const NETWORK = must(parsePrefix('172.22.40.0/24'));

test('six answers make a kind that the plan takes', () => {
  const { kind, issues } = kindOfAnswers(
    answers({
      ...{ maker: ' Ollerby ', ways: ['web-page', 'dhcp-mac'], factory: 'asks-dhcp' },
      ...{ speaks: ['EtherNet/IP', 'PROFINET'], answersPing: false },
    }),
    'kind-1',
  );
  expect(issues).toEqual({});
  expect(kind).toMatchObject({
    ...{ id: 'kind-1', maker: 'Ollerby', stem: 'pruf', answersPing: false, switches: undefined },
    factory: { kind: 'asks', by: 'dhcp' },
    // In the order in which they are asked for everywhere.
    ways: [{ way: 'dhcp-mac' }, { way: 'web-page' }],
    services: [{ port: 80 }, { port: 44_818 }],
    roles: [
      { protocol: 'EtherNet/IP', side: 'serves' },
      { protocol: 'PROFINET', side: 'serves' },
    ],
  });
  const thing = kind && docOf('kind', kind);
  expect(readEdits(thing ? [{ op: 'add', type: 'kind', thing }] : [])).toMatchObject({ ok: true });
});

test('two dials that were drawn are read and set as dials that ship are', () => {
  const { kind, face } = kindOfAnswers(
    answers({
      ...{ ways: ['switches'], factory: 'switches', elements: [TENS, ONES] },
      meanings: [
        { ...A_MEANING, from: '1', to: '98' },
        { ...A_MEANING, from: '99', to: '99', act: 'asks-dhcp' },
        { ...A_MEANING, from: '0', to: '0', act: 'fixed', text: '192.168.0.1' },
      ],
    }),
    'kind-2',
  );
  expect(kind?.switches).toBe(face);
  if (!face) throw new Error('no switches');
  const reading = must(readSwitches(face, [8, 6]));
  expect(addressBySwitches(face, reading, NETWORK)).toBe(must(parseIpv4('172.22.40.86')));
  expect(must(readSwitches(face, [9, 9])).act).toEqual({ kind: 'asks', by: 'dhcp' });
  const back = setForAddress(face, must(parseIpv4('172.22.40.86')), NETWORK);
  expect(must(back).positions).toEqual([8, 6]);
});

test('a row of DIP switches with a mode of its own', () => {
  const { face } = kindOfAnswers(
    answers({
      ways: ['switches', 'dhcp-mac'],
      elements: [
        { ...A_DIP_ROW, label: 'S1' },
        { ...A_DIP_ROW, label: 'S2', weights: '1', use: 'mode' },
      ],
      meanings: [
        { ...A_MEANING, mode: '0' },
        { ...A_MEANING, from: '0', to: '255', mode: '1', act: 'name', text: 'valves-{nnn}' },
      ],
    }),
    'kind-3',
  );
  if (!face) throw new Error('no switches');
  const bits = [0, 1, 0, 1, 0, 1, 1, 0];
  expect(must(readSwitches(face, [...bits, 0]))).toMatchObject({ value: 86, mode: 0 });
  expect(must(readSwitches(face, [...bits, 1])).act).toMatchObject({ pattern: 'valves-{nnn}' });
});

// Whatever is missing is told where it stands, and no kind comes of it.
test.each<[string, Partial<KindAnswers>, readonly (readonly [where: string, code: string])[]]>([
  [
    'no maker and no name',
    { maker: ' ', name: '' },
    [
      ['maker', 'cell.empty'],
      ['name', 'cell.empty'],
    ],
  ],
  ['no way', { ways: [] }, [['ways', 'kind.noWay']]],
  ['no switches drawn', { ways: ['switches'] }, [['elements', 'kind.noSwitches']]],
  [
    'a fixed address that is none',
    { factory: 'fixed', factoryAddress: '192.168' },
    [['factoryAddress', 'ipv4.parts']],
  ],
  [
    'a dial without label',
    { elements: [{ ...TENS, label: ' ' }], meanings: [A_MEANING] },
    [['elements.0.label', 'switches.label']],
  ],
  [
    'a dial without weight',
    { elements: [{ ...TENS, weights: '' }], meanings: [A_MEANING] },
    [['elements.0.weights', 'switches.weight']],
  ],
  [
    'a dial worth nothing',
    { elements: [{ ...TENS, weights: '0' }], meanings: [A_MEANING] },
    [['elements.0.weights', 'switches.number']],
  ],
  [
    'a dial of one position',
    { elements: [{ ...TENS, positions: '1' }], meanings: [A_MEANING] },
    [['elements.0.positions', 'switches.number']],
  ],
  ['switches that mean nothing', { elements: [TENS] }, [['meanings', 'switches.noMeaning']]],
  [
    'a range that runs backwards',
    { elements: [TENS], meanings: [{ ...A_MEANING, from: '9', to: '1' }] },
    [['meanings.0.to', 'switches.order']],
  ],
  [
    'a name without a number',
    { elements: [TENS], meanings: [{ ...A_MEANING, act: 'name', text: 'valves' }] },
    [['meanings.0.text', 'switches.pattern']],
  ],
])('%s', (_name, fields, wanted) => {
  const { kind, issues } = kindOfAnswers(answers(fields), 'kind');
  expect(Object.entries(issues).map(([where, { code }]) => [where, code])).toEqual(wanted);
  expect(kind).toBeUndefined();
});

// The same by the long form, a pasted plan or whoever else sends edits.
test.each([
  ['label', { label: '' }, 'switches.label'],
  ['weight', { weight: 0 }, 'switches.weight'],
])('the plan takes no dial without %s', (_what, fields, code) => {
  const { kind } = kindOfAnswers(
    answers({ ways: ['switches'], elements: [TENS], meanings: [A_MEANING] }),
    'kind-4',
  );
  if (!kind?.switches) throw new Error('no switches');
  const [dial] = kind.switches.elements;
  const spoilt = { ...kind.switches, elements: [{ ...dial, ...fields }] } as typeof kind.switches;
  const thing = docOf('kind', { ...kind, switches: spoilt });
  const edits = [
    { op: 'add', type: 'kind', thing },
    {
      op: 'set',
      type: 'kind',
      id: 'kind-4',
      field: 'switches',
      from: null,
      to: thing['switches'] ?? null,
    },
  ];
  for (const edit of edits)
    expect(readEdits([edit])).toMatchObject({ ok: false, error: [{ code }] });
  expect(readEdits([{ op: 'remove', type: 'kind', thing }])).toMatchObject({ ok: true });
});
