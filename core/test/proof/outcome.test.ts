import { must, parseIpv4, parseMac, parsePrefix } from '../../src/net';
import {
  applyEdits,
  docOfPlan,
  findKind,
  planOf,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  findShelfKind,
  type Acceptance,
  type ConnectionEnd,
  type CheckKind,
} from '../../src/plan';
import {
  differencesIn,
  foundKey,
  plannedTexts,
  proofOutcome,
  requiredChecks,
  runChanges,
  scopeTitle,
  interfacesIn,
  settlementsOf,
  stayEdit,
  type FoundDifference,
  type ProofResult,
} from '../../src/proof';

type LastCheck = NonNullable<Parameters<typeof proofOutcome>[2]>;

const ip = (text: string) => must(parseIpv4(text));
const mac = (text: string) => must(parseMac(text));
const NOW = 1_764_000_000_000;
const DAY = 86_400_000;
const REQUIRED = requiredChecks(findShelfKind('tarnwick-valves-16'), 'bootp');
const ALL = 'arp ping identity services';

const check = (kind: CheckKind, facts: Record<string, string>, daysAgo = 0): LastCheck => ({
  ...{ kind, facts, at: NOW - daysAgo * DAY },
});
const REVISION: FoundDifference = { what: 'revision', expected: '2.1', found: '3.1' };
const contradicted = check('contradicted', {
  ...{ differs: 'revision', 'expected revision': '2.1', 'found revision': '3.1' },
});
const stay = (found: FoundDifference) => ({
  ...{ id: 'a1', key: foundKey('i1', found), reason: 'works with it', person: 'Mara' },
});

const judging = (
  acceptances: readonly Acceptance[] = [],
  texts: Partial<Record<string, string>> = {},
) => ({
  ...{ acceptances, now: NOW },
  planned: ({ what }: FoundDifference) => texts[what],
});

test.each([
  ['never asked', undefined, 'not-asked'],
  ['all passed', check('found-as-planned', { passed: ALL }), 'proven'],
  ['all passed a week ago', check('found-as-planned', { passed: ALL }, 7), 'proven'],
  ['where it is was seen too long ago', check('found-as-planned', { passed: ALL }, 8), 'stale'],
  ['only ARP and ping, when its kind says who it is', check('found-as-planned', {}), 'not-asked'],
  ['silent', check('no-answer', {}), 'silent'],
  ['other than planned', contradicted, 'contradicted'],
] as const)('R-PROVEN: %s', (_name, last, kind) => {
  expect(proofOutcome('i1', REQUIRED, last, judging()).kind).toBe(kind);
});

test('a difference that stays with a reason is accepted, until another value is found', () => {
  const of = (found: FoundDifference) =>
    proofOutcome('i1', REQUIRED, contradicted, judging([stay(found)])).kind;
  expect(of(REVISION)).toBe('accepted');
  expect(of({ ...REVISION, found: '4.0' })).toBe('contradicted');
});

test('a difference that the plan has taken over since has to be asked again', () => {
  const outcome = proofOutcome('i1', REQUIRED, contradicted, judging([], { revision: '3.1' }));
  expect(outcome).toEqual({ kind: 'not-asked', checks: ['identity'] });
  const still = proofOutcome('i1', REQUIRED, contradicted, judging([], { revision: '2.1' }));
  expect(still.kind).toBe('contradicted');
});

const END: ConnectionEnd = {
  ...{ inSize: 2, outSize: 4, unitBits: '16', viewpoint: 'controller', headerBytes: 0 },
  ...{
    inInstance: 101,
    outInstance: 102,
    configInstance: 103,
    configBytes: undefined,
    intervalMillis: 10,
  },
  ...{ revision: '', register: undefined, counting: 'from-0' },
};

const plan = toPlan({
  subnets: [toSubnet({ id: 's1', name: 'Hall', prefix: must(parsePrefix('172.22.40.0/24')) })],
  devices: ['one', 'two'].map((id, at) =>
    toDevice({
      ...{ id, title: `Valves ${id}`, name: `v-${id}`, kindId: 'tarnwick-valves-16', way: 'bootp' },
      cabinet: at === 0 ? 'OX1' : 'OX2',
      modules: [
        { slot: 1, title: '8 channels' },
        { slot: 2, title: 'counter' },
      ],
      connection: { protocol: 'EtherNet/IP', device: END, controller: END },
      interfaces: [
        toInterface({
          ...{ id: `i-${id}`, deviceId: id, subnetId: 's1', address: ip(`172.22.40.10${at}`) },
          mac: mac(`02:00:5e:00:53:1${at}`),
        }),
      ],
    }),
  ),
});
const doc = docOfPlan(plan);
const [device] = plan.devices;
const [at] = device?.interfaces ?? [];
if (!device || !at) throw new Error('no device');
const place = { plan, doc, device, at };
const after = (found: FoundDifference, kind: string) => {
  const one = settlementsOf(place, found).find((each) => each.kind === kind);
  if (!one || !('edits' in one)) throw new Error(kind);
  const done = applyEdits(doc, one.edits);
  if (!done.ok) throw new Error('conflict');
  return planOf(done.value.doc);
};

test.each<[FoundDifference['what'], string, readonly string[]]>([
  ['several', 'a, b', ['device-is-wrong']],
  ['mac', '02:00:5e:00:53:99', ['another-device', 'device-is-wrong', 'both-stay']],
  ['mac', '02:00:5e:00:53:11', ['swapped', 'another-device', 'device-is-wrong', 'both-stay']],
  ['revision', '3.1', ['plan-was-wrong', 'device-is-wrong', 'another-device', 'both-stay']],
  ['serial', '77', ['another-device', 'plan-was-wrong', 'device-is-wrong', 'both-stay']],
  ['kind', '65202 / 2 / 44', ['another-device', 'plan-was-wrong', 'device-is-wrong', 'both-stay']],
  ['mask', '255.255.0.0', ['plan-was-wrong', 'device-is-wrong', 'both-stay']],
  ['gateway', 'none', ['plan-was-wrong', 'device-is-wrong', 'both-stay']],
  // Of no kind that is known: the plan cannot say it.
  ['kind', '1 / 1 / 1', ['another-device', 'device-is-wrong', 'both-stay']],
  ['module', 'slot 1: counter', ['plan-was-wrong', 'device-is-wrong', 'both-stay']],
  ['size', 'in 8', ['plan-was-wrong', 'device-is-wrong', 'both-stay']],
  ['instance', 'none', ['device-is-wrong', 'both-stay']],
  ['name', '', ['device-is-wrong', 'both-stay']],
  ['no-ping', 'none', ['device-is-wrong', 'both-stay']],
])('what %s "%s" can come to', (what, found, kinds) => {
  const all = settlementsOf(place, { what, expected: '', found });
  expect(all.map(({ kind }) => kind)).toEqual(kinds);
});

test('the plan takes what was found', () => {
  const serial = after({ what: 'serial', expected: '', found: '77' }, 'plan-was-wrong');
  expect(serial.devices[0]?.serial).toBe('77');
  const revised = after(REVISION, 'plan-was-wrong');
  const kind = findKind(revised, revised.devices[0]?.kindId ?? '');
  expect(kind).toMatchObject({ revision: '3.1', name: 'Valve block, 16 coils' });
  expect(revised.devices[1]?.kindId).toBe('tarnwick-valves-16');
  const far = after({ what: 'gateway', expected: '', found: '172.22.40.254' }, 'plan-was-wrong');
  expect(far.devices[0]?.interfaces[0]?.gateway).toBe(ip('172.22.40.254'));
  const other = after({ what: 'kind', expected: '', found: '65202 / 2 / 44' }, 'plan-was-wrong');
  expect(other.devices[0]?.kindId).toBe('belloch-drive-d4');
});

test('modules and sizes are taken as found, and only those that differ', () => {
  const modules = after(
    { what: 'module', expected: '', found: 'slot 2: empty; slot 4: 8 outputs' },
    'plan-was-wrong',
  );
  expect(modules.devices[0]?.modules).toEqual([
    { slot: 1, title: '8 channels' },
    { slot: 4, title: '8 outputs' },
  ]);
  // 16 bytes are 8 words.
  const sized = after({ what: 'size', expected: 'in 4', found: 'in 16' }, 'plan-was-wrong');
  expect(sized.devices[0]?.connection?.device).toMatchObject({ inSize: 8, outSize: 4 });
});

test.each<[FoundDifference['what'], expected: string, now: string]>([
  ['module', 'slot 2: empty; slot 1: 8 inputs', 'slot 2: counter; slot 1: 8 channels'],
  ['size', 'out 16, in 2', 'out 8, in 4'],
  ['instance', 'config 100, in 101', 'config 103, in 101'],
  ['kind', '65201 / 27 / 15', '65201 / 27 / 16'],
  // Over layer 2 a kind has two numbers, and this one none of them.
  ['kind', '1022 / 8', ''],
  ['gateway', '172.22.40.1', 'none'],
  ['mask', '255.255.0.0', '255.255.255.0'],
])('what the plan says now of %s "%s"', (what, expected, now) => {
  expect(plannedTexts(plan, place)({ what, expected, found: '' })).toBe(now);
});

test('two that hang in each other’s places exchange their MACs', () => {
  const swapped = after({ what: 'mac', expected: '', found: '02:00:5e:00:53:11' }, 'swapped');
  const macs = swapped.devices.map((one) => one.interfaces[0]?.mac);
  expect(macs).toEqual([mac('02:00:5e:00:53:11'), mac('02:00:5e:00:53:10')]);
});

test('what stays is kept in the plan with who and why', () => {
  const edit = stayEdit('a1', 'i1', REVISION, { reason: 'works with it', person: 'Mara' });
  const done = applyEdits(doc, [edit]);
  expect(done.ok && planOf(done.value.doc).acceptances).toEqual([stay(REVISION)]);
});

test('what a run is over', () => {
  const ids = (scope: Parameters<typeof interfacesIn>[1]) =>
    interfacesIn(plan, scope).map((one) => one.at.id);
  expect(ids({ kind: 'job' })).toEqual(['i-one', 'i-two']);
  expect(ids({ kind: 'cabinet', cabinet: 'OX2' })).toEqual(['i-two']);
  expect(ids({ kind: 'subnet', subnetId: 's1' })).toHaveLength(2);
  expect(ids({ kind: 'interface', interfaceId: 'i-one' })).toEqual(['i-one']);
  expect(scopeTitle(plan, { kind: 'subnet', subnetId: 's1' })).toBe('subnet Hall');
});

test('two runs compared: what changed, came and went; a ping that took longer is no change', () => {
  const result = (interfaceId: string, kind: CheckKind, facts: object): ProofResult => ({
    ...({ interfaceId, kind, at: NOW, facts } as ProofResult),
  });
  const before = [
    result('same', 'found-as-planned', { found: 'm1', pingMillis: 1 }),
    result('firmware', 'found-as-planned', { found: 'm2', revision: '2.1' }),
    result('gone', 'found-as-planned', { found: 'm3', revision: '2.1' }),
    result('left-out', 'no-answer', {}),
  ];
  const later = [
    result('same', 'found-as-planned', { found: 'm1', pingMillis: 9 }),
    result('firmware', 'found-as-planned', { found: 'm2', revision: '2.4' }),
    result('gone', 'no-answer', {}),
    result('new', 'found-as-planned', {}),
  ];
  expect(
    runChanges(before, later).map(({ interfaceId, before: was, after: is, values }) => [
      ...[interfaceId, was?.kind, is?.kind, values.map(({ value }) => value).join()],
    ]),
  ).toEqual([
    ['firmware', 'found-as-planned', 'found-as-planned', 'revision'],
    ['gone', 'found-as-planned', 'no-answer', ''],
    ['left-out', 'no-answer', undefined, ''],
    ['new', undefined, 'found-as-planned', ''],
  ]);
  expect(differencesIn({})).toEqual([]);
});
