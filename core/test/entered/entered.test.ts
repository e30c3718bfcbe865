import {
  correctionsOf,
  deviceTakes,
  enteredEdits,
  otherSides,
  placeEntered,
  readEntered,
  sideEdits,
  threeWays,
  type EnteredValue,
  type Side,
} from '../../src/entered';
import { must, parseIpv4, parsePrefix } from '../../src/net';
import {
  applyEdits,
  docOfPlan,
  planOf,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type ConnectionEnd,
  type Device,
} from '../../src/plan';
import { parseCells } from '../../src/sheet';

const ip = (text: string) => must(parseIpv4(text));

const end = (fields: Partial<ConnectionEnd>): ConnectionEnd => ({
  ...{ inSize: undefined, outSize: undefined, unitBits: '8', viewpoint: 'controller' },
  ...{ headerBytes: 0, inInstance: undefined, outInstance: undefined },
  ...{ configInstance: undefined, configBytes: undefined, intervalMillis: undefined, revision: '' },
  ...{ register: undefined, counting: 'from-0', ...fields },
});

const device = (id: string, address: string, more: Partial<Device> = {}): Device =>
  toDevice({
    ...{ id, title: `Valves ${id}`, name: `ox1-valves-${id}`, kindId: 'tarnwick-valves-16' },
    ...{ way: 'bootp', ...more },
    interfaces: [toInterface({ id: `i${id}`, deviceId: id, subnetId: 's', address: ip(address) })],
  });

const connection: Device['connection'] = {
  protocol: 'EtherNet/IP',
  device: end({ inSize: 180, outSize: 4, inInstance: 101, intervalMillis: 10 }),
  // Ninety words are the same 180 bytes.
  controller: end({ inSize: 90, outSize: 4, unitBits: '16', inInstance: 102, intervalMillis: 10 }),
};

const plan = toPlan({
  subnets: [toSubnet({ id: 's', name: 'Hall', prefix: must(parsePrefix('172.22.40.0/24')) })],
  devices: [
    device('1', '172.22.40.104', { connection }),
    device('2', '172.22.40.105'),
    device('3', '172.22.40.106', { way: 'layer2-name', stationName: 'sl1-block-3' }),
  ],
});
const doc = docOfPlan(plan);

const rowsOf = (one: Device | undefined, check: Parameters<typeof threeWays>[3] = undefined) => {
  const [at] = one?.interfaces ?? [];
  if (!one || !at) throw new Error('no device');
  return threeWays(plan, one, at, check).map(({ value, planned, entered, found, verdict }) =>
    [value, planned, entered, found, verdict].join(' | '),
  );
};

test('R-THREE-WAYS: planned, entered and found of every value that somebody says', () => {
  const entered = {
    ...{ name: 'ox1-valves-1', address: ip('172.22.40.140'), revision: '2.4' },
    ...{ mask: undefined, gateway: undefined },
  };
  const found = { asked: '172.22.40.104', name: '', revision: '3.1' };
  expect(
    rowsOf({ ...(plan.devices[0] as Device), entered }, { kind: 'contradicted', facts: found }),
  ).toEqual([
    'name | ox1-valves-1 | ox1-valves-1 |  | same',
    'address | 172.22.40.104 | 172.22.40.140 | 172.22.40.104 | differs',
    'revision | 2.1 | 2.4 | 3.1 | differs',
    'in | 180 | 180 |  | same',
    'out | 4 | 8 |  | differs',
    'in-instance | 101 | 102 |  | differs',
    'interval | 10 | 10 |  | same',
  ]);
});

test('R-THREE-WAYS: sizes, instances, modules and the connection as the device tells them', () => {
  const [one] = plan.devices;
  const swapped = {
    ...{ protocol: 'EtherNet/IP' as const },
    // The same seen from the other side: what the device sends are its outputs.
    device: end({ viewpoint: 'device', outSize: 8, inSize: 4, outInstance: 101, inInstance: 102 }),
    controller: end({ inSize: 8, outSize: 4, inInstance: 101, outInstance: 102 }),
  };
  const modules = [{ slot: 1, title: 'counter' }];
  const facts = {
    ...{ asked: '172.22.40.104', in: 8, out: 16, 'in-instance': 101, 'out-instance': 'none' },
    ...{ connection: 'running', modules: 'slot 1: Counter C', differs: 'size instance' },
  };
  const device = { ...(one as Device), connection: swapped, modules };
  expect(rowsOf(device, { kind: 'contradicted', facts }).slice(3)).toEqual([
    'in | 8 | 8 | 8 | same',
    'out | 4 | 4 | 16 | differs',
    'in-instance | 101 | 101 | 101 | same',
    'out-instance | 102 | 102 | none | differs',
    'modules | slot 1: counter |  | slot 1: Counter C | same',
    'connection |  |  | running | alone',
  ]);
});

test('R-THREE-WAYS: another device at the address, or nobody, is no word about this one', () => {
  const kinds = (kind: string, facts: object) =>
    rowsOf(plan.devices[1], { kind, facts: facts as never });
  expect(kinds('no-answer', { asked: '172.22.40.105' })[1]).toBe(
    'address | 172.22.40.105 |  |  | alone',
  );
  expect(kinds('contradicted', { asked: '172.22.40.105', what: 'mac' })[1]).toMatch(/alone$/);
  expect(rowsOf(plan.devices[2])[0]).toBe('name | sl1-block-3 |  |  | alone');
});

describe('R-ENTERED: what was pasted', () => {
  test.each([
    [
      'with headings in any order',
      'IP address\tDevice name\tRPI\n172.22.40.104\tox1-valves-1\t20',
      [['ox1-valves-1', '172.22.40.104', 'Valves 1', 'name', 20]],
    ],
    [
      'without headings: name, address, revision, in, out, interval',
      'ox1-valves-2\t172.22.40.105\t2.1\t4\t4\t8\n\n',
      [['ox1-valves-2', '172.22.40.105', 'Valves 2', 'name', 8]],
    ],
    [
      'by its address where the name is another one',
      'valves_left\t172.22.40.105',
      [['valves_left', '172.22.40.105', 'Valves 2', 'address', undefined]],
    ],
    [
      'by a name with a slip of the hand',
      'SL1-block-3\t',
      [['SL1-block-3', undefined, 'Valves 3', 'slip', undefined]],
    ],
    [
      'nobody of the plan',
      'press-9\t10.0.0.9',
      [['press-9', '10.0.0.9', undefined, 'nothing', undefined]],
    ],
  ])('%s', (_name, pasted, wanted) => {
    const { lines } = must(readEntered(parseCells(pasted)));
    expect(
      placeEntered(plan, lines).map(({ line, device: one, by }) => [
        ...[line.name, line.address, one?.title, by, line.intervalMillis],
      ]),
    ).toEqual(
      wanted.map(([name, address, ...rest]) => [
        ...[name, typeof address === 'string' ? ip(address) : undefined, ...rest],
      ]),
    );
  });

  test.each([
    ['ox1-valves-1\t172.22.40.300', ['ipv4.octet'], 'line 1: 172.22.40.300'],
    ['name\taddress\tin\na\t10.0.0.1\tmany', ['entered.number'], 'line 2: many'],
    ['name\tin\tunit\na\t4\tnibbles', ['entered.unit'], 'line 2: nibbles'],
    ['name\taddress\tmask\na\t10.0.0.1\t255.0.255.0', ['mask.gap'], 'line 2: 255.0.255.0'],
    ['', ['entered.empty'], ''],
    ['name\taddress', ['entered.empty'], ''],
  ])('refused: %j', (pasted, codes, where) => {
    const read = readEntered(parseCells(pasted));
    expect(read.ok ? [] : read.error.map(({ code }) => code)).toEqual(codes);
    expect(read.ok ? '' : read.error[0]?.where).toBe(where);
  });

  test('it goes into the plan as one change, sizes and interval into the controller’s end', () => {
    const pasted = 'ox1-valves-1\t172.22.40.104\t2.1\t90\t2\t20\nnobody\t10.0.0.1';
    const edits = enteredEdits(
      doc,
      placeEntered(plan, must(readEntered(parseCells(pasted))).lines),
    );
    const done = applyEdits(doc, edits);
    const after = done.ok ? planOf(done.value.doc).devices[0] : undefined;
    expect(after?.entered).toEqual({
      ...{ name: 'ox1-valves-1', address: ip('172.22.40.104'), revision: '2.1' },
      ...{ mask: undefined, gateway: undefined },
    });
    expect(after?.connection?.controller).toMatchObject({
      inSize: 90,
      outSize: 2,
      intervalMillis: 20,
    });
    expect(after?.connection?.device).toEqual(connection?.device);
  });

  // A project's table with the columns people copy along (common practice, no source).
  test.each([
    ['name\tIP address\tSubnet mask\tGateway\tColour', ['Colour']],
    ['Gerätename\tIP-Adresse\tSubnetzmaske\tGateway\tFarbe', ['Farbe']],
  ])('mask and gateway under %j are held against the plan', (head, unread) => {
    const pasted = `${head}\nox1-valves-1\t172.22.40.104\t255.255.0.0\t172.22.40.254\tred`;
    const table = must(readEntered(parseCells(pasted)));
    expect(table.unread).toEqual(unread);
    const done = applyEdits(doc, enteredEdits(doc, placeEntered(plan, table.lines)));
    const after = done.ok ? planOf(done.value.doc) : plan;
    const [one] = after.devices;
    const rows = one?.interfaces[0] ? threeWays(after, one, one.interfaces[0], undefined) : [];
    expect(
      rows.flatMap(({ value, planned, entered, verdict }) =>
        value === 'mask' || value === 'gateway' ? [[value, planned, entered, verdict]] : [],
      ),
    ).toEqual([
      ['mask', '255.255.255.0', '255.255.0.0', 'differs'],
      ['gateway', 'none', '172.22.40.254', 'differs'],
    ]);
  });

  test('units and instances by their headings; what the list does not say stays', () => {
    const pasted =
      'name\tInput instance\tOutput assembly\tConfiguration instance\tin\tunit\n' +
      'ox1-valves-1\t101\t103\t104\t45\tDouble words';
    const edits = enteredEdits(
      doc,
      placeEntered(plan, must(readEntered(parseCells(pasted))).lines),
    );
    const done = applyEdits(doc, edits);
    const after = done.ok ? planOf(done.value.doc).devices[0] : undefined;
    expect(after?.connection?.controller).toMatchObject({
      ...{ inInstance: 101, outInstance: 103, configInstance: 104 },
      ...{ inSize: 45, unitBits: '32', outSize: 4, intervalMillis: 10 },
    });
  });
});

describe('R-SIDES: whose value counts is decided value by value, and the plan says it', () => {
  const entered = {
    ...{ name: 'ox1-valve-1', address: ip('172.22.40.140'), revision: '3.4' },
    ...{ mask: ip('255.255.0.0'), gateway: ip('172.22.40.9') },
  };
  const ends = {
    protocol: 'EtherNet/IP' as const,
    // From its own viewpoint, in words with a header: in and out change places.
    device: end({
      ...{ viewpoint: 'device', unitBits: '16', headerBytes: 4, inSize: 4, outSize: 92 },
      ...{ inInstance: 102, outInstance: 101, configInstance: 103, intervalMillis: 10 },
    }),
    controller: end({
      ...{ inSize: 90, outSize: 8, inInstance: 104, outInstance: 105, configInstance: 106 },
      ...{ intervalMillis: 20 },
    }),
  };
  const of = { ...(plan.devices[0] as Device), entered, connection: ends };
  const wanted = { ...plan, devices: [of, ...plan.devices.slice(1)] };
  const facts = {
    ...{ asked: '172.22.40.104', revision: '5.1', in: 64, out: 2, 'out-instance': 'none' },
  };
  const check = { kind: 'contradicted', facts } as const;
  const rowOf = (now: typeof plan, value: EnteredValue) => {
    const [one] = now.devices;
    const [at] = one?.interfaces ?? [];
    const row = one && at && threeWays(now, one, at, check).find((ways) => ways.value === value);
    if (!one || !at || !row) throw new Error(`no ${value}`);
    return { row, place: { plan: now, doc: docOfPlan(now), device: one, at } };
  };

  test.each<[EnteredValue, Side, string]>([
    ['name', 'entered', 'ox1-valve-1'],
    ['address', 'entered', '172.22.40.140'],
    ['mask', 'entered', '255.255.0.0'],
    ['gateway', 'entered', '172.22.40.9'],
    ['revision', 'entered', '3.4'],
    ['revision', 'found', '5.1'],
    ['in', 'entered', '90'],
    ['in', 'found', '64'],
    ['out', 'found', '2'],
    ['in-instance', 'entered', '104'],
    ['out-instance', 'entered', '105'],
    ['out-instance', 'found', ''],
    ['config-instance', 'entered', '106'],
    ['interval', 'entered', '20'],
  ])('%s as %s', (value, side, planned) => {
    const { row, place } = rowOf(wanted, value);
    expect(otherSides(row)).toContain(side);
    const edits = sideEdits(place, row, side) ?? [];
    const applied = applyEdits(place.doc, edits);
    if (!applied.ok) throw new Error('not applied');
    const after = planOf(applied.value.doc);
    const now = rowOf(after, value).row;
    expect(now.planned).toBe(planned);
    // Nothing else of the connection was changed by it.
    const others = (['in', 'out', 'interval', 'in-instance'] as const).filter(
      (one) => one !== value,
    );
    expect(others.map((one) => rowOf(after, one).row.planned)).toEqual(
      others.map((one) => rowOf(wanted, one).row.planned),
    );
    if (side === 'entered') expect(correctionsOf([now])).toEqual([]);
    else if (planned !== '') expect(deviceTakes([now])).toEqual([]);
  });

  test('what was not chosen is to be corrected in the project, or taken by the device', () => {
    const rows = threeWays(wanted, of, of.interfaces[0] as never, check);
    expect(
      correctionsOf(rows).map(({ value, stands, becomes }) => `${value} ${stands} > ${becomes}`),
    ).toEqual([
      ...['name ox1-valve-1 > ox1-valves-1', 'address 172.22.40.140 > 172.22.40.104'],
      ...['mask 255.255.0.0 > 255.255.255.0', 'gateway 172.22.40.9 > none', 'revision 3.4 > 2.1'],
      ...['in 90 > 180', 'out 8 > 4', 'in-instance 104 > 101', 'out-instance 105 > 102'],
      ...['config-instance 106 > 103', 'interval 20 > 10'],
    ]);
    expect(deviceTakes(rows).map(({ value }) => value)).toEqual([
      ...['revision', 'in', 'out', 'out-instance'],
    ]);
  });

  test('one that is looked for by its station name keeps its host name', () => {
    const station = toDevice({
      ...{ id: '9', title: 'Block', name: 'fh-block-9', kindId: 'k', way: 'layer2-name' },
      entered: { ...entered, name: 'sl1-block-9' },
      interfaces: device('9', '172.22.40.109').interfaces,
    });
    const { row, place } = rowOf({ ...plan, devices: [station] }, 'name');
    expect(sideEdits(place, row, 'entered')).toMatchObject([
      { field: 'stationName', to: 'sl1-block-9' },
    ]);
  });

  test('one that says what the plan says, or nothing, is no other side', () => {
    expect(otherSides(rowOf(wanted, 'address').row)).toEqual(['entered']);
    expect(sideEdits(rowOf(wanted, 'mask').place, rowOf(wanted, 'mask').row, 'found')).toBe(
      undefined,
    );
  });
});
