import type { RelayPort } from '@ipsonomo/core/answering';
import { toMac } from '@ipsonomo/core/net';
import { fromLatin1, OPTION, rawOption } from '@ipsonomo/core/wire';
import type { FieldTarget } from '../src/protocol';
import { DRIVE, EngineBench, ip, mac, planOf, STRANGER, target } from './bench';

// Devices known by the name they say (options 12 and 61) or the switch port they come in at (option 82).

const NAME = 'terminal4-007';
const PORT: RelayPort = { circuit: '65746831', remote: '' };

const hostName = (name: string) => rawOption(OPTION.hostName, name);
const clientId = (name: string, type?: number) =>
  rawOption(
    OPTION.clientId,
    Uint8Array.from([...(type === undefined ? [] : [type]), ...fromLatin1(name)]),
  );
type Parts = readonly (readonly [code: number, data: string])[];
const relay = (...parts: Parts) =>
  rawOption(
    OPTION.relayInformation,
    Uint8Array.from(parts.flatMap(([code, data]) => [code, data.length, ...fromLatin1(data)])),
  );

const byName = (fields: Partial<FieldTarget> = {}): FieldTarget =>
  target({ mac: undefined, key: { by: 'name', name: NAME }, heardBy: 'asked-by-name', ...fields });
const byPort = (port: RelayPort | undefined): FieldTarget =>
  target({ mac: undefined, key: { by: 'port', port }, heardBy: 'asked-by-port' });

function armed(one: FieldTarget): EngineBench {
  const bench = new EngineBench(planOf([one]));
  bench.arm();
  bench.spoken();
  return bench;
}

test.each([
  ['option 12', [hostName(NAME)], 1],
  ['option 61 as it is', [clientId(NAME)], 1],
  ['option 61 after type 0', [clientId(NAME, 0)], 1],
  ['option 61 after a hardware type', [clientId(NAME, 1)], 0],
  ['a capital more', [hostName('Terminal4-007')], 0],
  ['a blank at the end', [hostName(`${NAME} `)], 0],
  ['the beginning of it', [hostName('terminal4-00')], 0],
  ['no name', [], 0],
  ['another host name, but the right identifier', [hostName('x'), clientId(NAME)], 1],
] as const)('by name: %s', (_what, more, answers) => {
  const bench = armed(byName());
  bench.asks(DRIVE, { type: 'DISCOVER', more });
  expect(bench.replies()).toHaveLength(answers);
  expect(bench.kinds().includes('asked-by-name')).toBe(answers === 1);
});

test('by name: what it uses then is evidence of the MAC that asked', () => {
  const bench = armed(byName());
  bench.asks(DRIVE, { type: 'DISCOVER', more: [hostName(NAME)] });
  bench.has(DRIVE, '10.77.0.85');
  expect(bench.events.map(({ kind, mac: who }) => [kind, who])).toEqual([
    ['asked-by-name', DRIVE],
    ['has-address', DRIVE],
  ]);
});

test('by name: another device under the same name is a swap, and needs no laptop', () => {
  const bench = armed(byName({ mac: STRANGER }));
  bench.asks(DRIVE, { type: 'DISCOVER', more: [hostName(NAME)] });
  expect(bench.replies()).toHaveLength(1);
  expect(bench.events.at(-1)).toMatchObject({ kind: 'asked-by-name', mac: DRIVE });
});

test('by name: the device that took over is told of at once, a flood of them not with every frame', () => {
  const bench = armed(byName());
  const ask = (who: number) => bench.asks(toMac(who), { type: 'DISCOVER', more: [hostName(NAME)] });
  ask(DRIVE);
  bench.advance(2000);
  ask(STRANGER);
  const told = () => bench.events.filter(({ kind }) => kind === 'asked-by-name');
  expect(told().map((one) => one.mac)).toEqual([DRIVE, STRANGER]);
  for (let who = 0; who < 500; who += 1) ask(0x020000001000 + who);
  expect(told().length).toBeLessThan(5);
});

test('R-KEY-TWINS: two that both go on asking under one name: neither is answered', () => {
  const bench = armed(byName());
  const ask = (who: typeof DRIVE) => bench.asks(who, { type: 'DISCOVER', more: [hostName(NAME)] });
  ask(DRIVE);
  ask(STRANGER);
  bench.spoken();
  ask(DRIVE);
  ask(STRANGER);
  expect(bench.replies()).toEqual([]);
  expect(bench.events.at(-1)).toMatchObject({
    kind: 'twins',
    facts: { under: 'name', name: NAME, one: '02:00:5e:00:53:77', other: '02:00:5e:00:53:11' },
  });
  // One is unplugged and listening begins anew.
  bench.engine.listen('another run');
  bench.arm();
  bench.spoken();
  bench.advance(200_000);
  ask(DRIVE);
  bench.advance(1000); // its address is probed anew
  expect(bench.replies()).toHaveLength(1);
});

test('by name: asking at a start is what such a device does, and takes no stage back', () => {
  const bench = armed(byName());
  const ask = () => bench.asks(DRIVE, { type: 'DISCOVER', more: [hostName(NAME)] });
  ask();
  bench.has(DRIVE, '10.77.0.85');
  ask();
  expect(bench.kinds()).not.toContain('asks-again');
  // Watched, it is back with its address although it asked: somebody else has answered it.
  bench.engine.acts.watchPower({ interfaceId: 'drive', person: '' });
  bench.advance(6000);
  ask();
  bench.advance(3000);
  bench.has(DRIVE, '10.77.0.85');
  expect(bench.kinds()).toContain('kept');
  expect(bench.kinds()).not.toContain('asks-again');
});

test('by name: its own MAC under another name is told, and not answered', () => {
  const bench = armed(byName({ mac: DRIVE }));
  bench.asks(DRIVE, { type: 'DISCOVER', more: [hostName('terminal4-008')] });
  expect(bench.replies()).toEqual([]);
  expect(bench.events.at(-1)).toMatchObject({
    kind: 'asked',
    facts: { otherName: 'terminal4-008' },
  });
});

test('by name: heard before it was planned counts', () => {
  const bench = new EngineBench(planOf([]));
  bench.asks(DRIVE, { type: 'DISCOVER', more: [hostName(NAME)] });
  bench.engine.plan(planOf([byName()]));
  expect(bench.events).toMatchObject([{ kind: 'asked-by-name', mac: DRIVE }]);
});

test.each<[string, RelayPort | undefined, Parts, number]>([
  ['its port', PORT, [[1, 'eth1']], 1],
  [
    'its port of any switch',
    PORT,
    [
      [1, 'eth1'],
      [2, 'switch-b'],
    ],
    1,
  ],
  [
    'its port of its switch',
    { circuit: '65746831', remote: '7377' },
    [
      [1, 'eth1'],
      [2, 'sw'],
    ],
    1,
  ],
  ['its port of another switch', { circuit: '65746831', remote: '7377' }, [[1, 'eth1']], 0],
  ['another port', PORT, [[1, 'eth2']], 0],
  ['no circuit', PORT, [[2, 'eth1']], 0],
  ['a port that is not known yet', undefined, [[1, 'eth1']], 0],
])('by port: %s', (_what, port, parts, answers) => {
  const bench = armed(byPort(port));
  bench.asks(DRIVE, { type: 'DISCOVER', more: [relay(...parts)] });
  expect(bench.replies()).toHaveLength(answers);
  expect(bench.heard.get(DRIVE)?.port?.circuit).toBe(
    parts.some(([code]) => code === 1)
      ? Buffer.from(parts[0]?.[1] ?? '').toString('hex')
      : undefined,
  );
});

test('by port: relay information that ends in the middle is no port', () => {
  const bench = armed(byPort(PORT));
  const cut = rawOption(OPTION.relayInformation, Uint8Array.of(1, 9, 0x65));
  bench.asks(DRIVE, { type: 'DISCOVER', more: [cut] });
  expect(bench.replies()).toEqual([]);
  expect(bench.heard.get(DRIVE)?.port).toBeUndefined();
});

test('a bound MAC goes before any name: it is answered as what it is bound to', () => {
  const bound = target({ interfaceId: 'bound', mac: DRIVE, address: ip('10.77.0.90') });
  const bench = new EngineBench(planOf([bound, byName()]));
  bench.arm();
  bench.spoken();
  bench.asks(DRIVE, { type: 'DISCOVER', more: [hostName(NAME)] });
  expect(bench.replies()).toEqual(['OFFER 10.77.0.90']);
  bench.asks(mac('02:00:5e:00:53:12'), { type: 'DISCOVER', more: [hostName(NAME)] });
  expect(bench.replies()).toEqual(['OFFER 10.77.0.85']);
});
