import { toMac } from '@ipsonomo/core/net';
import { encodeWith, ethernet, lldp, withTag } from '@ipsonomo/core/wire';
import { EngineBench, mac } from './bench';

// R-SOCKET: which socket the cable is in, by listening alone.

const SWITCH = mac('02:00:5e:00:53:01');
const text = (value: string) => Uint8Array.from(value, (letter) => letter.charCodeAt(0));

function says(bench: EngineBench, port: string, seconds = 120): void {
  const payload = encodeWith(lldp, [
    { type: 1, data: Uint8Array.of(4, 2, 0, 0x5e, 0, 0x53, 1) },
    { type: 2, data: Uint8Array.of(5, ...text(port)) },
    { type: 3, data: Uint8Array.of(0, seconds) },
    { type: 5, data: text('hall-switch') },
    { type: 127, data: Uint8Array.of(0, 0x80, 0xc2, 1, 0, 40) },
  ]);
  const to = toMac(0x0180c200000e);
  bench.engine.frame(encodeWith(ethernet, { to, from: SWITCH, etherType: 0x88cc, payload }));
}

/** A configuration message of the spanning tree (IEEE 802.1D-2004 §9.3.1). */
function treeSays(bench: EngineBench, port: number): void {
  const payload = new Uint8Array(46);
  payload.set([0x42, 0x42, 0x03]);
  payload.set([0x80, 0, 2, 0, 0x5e, 0, 0x53, 1], 20);
  payload.set([0x80, port], 28);
  const to = toMac(0x0180c2000000);
  bench.engine.frame(encodeWith(ethernet, { to, from: SWITCH, etherType: 38, payload }));
}

const socket = (bench: EngineBench) => bench.engine.status().socket;

test('what the switch says of its port holds as long as it said', () => {
  const bench = new EngineBench();
  expect(socket(bench)).toMatchObject({ neighbour: undefined, heardAt: undefined });
  says(bench, 'port5');
  expect(socket(bench).neighbour).toMatchObject({ system: 'hall-switch', port: 'port5', vlan: 40 });
  bench.advance(119_000);
  says(bench, 'port6', 10);
  bench.advance(9_000);
  expect(socket(bench).neighbour?.port).toBe('port6');
  bench.advance(2_000);
  expect(socket(bench).neighbour).toBeUndefined();
  expect(bench.sent).toEqual([]);
});

test('the spanning tree says which bridge and port', () => {
  const bench = new EngineBench();
  treeSays(bench, 7);
  expect(socket(bench).bridge).toMatchObject({ mac: SWITCH, port: 7 });
});

test('frames with the tag of another VLAN are told, kept once, and never answered', () => {
  const bench = new EngineBench();
  const etherType = 0x88b5; // for experiments (IEEE 802)
  const asks = encodeWith(ethernet, {
    to: SWITCH,
    from: SWITCH,
    etherType,
    payload: Uint8Array.of(1),
  });
  for (const vlan of [41, 7, 41]) bench.engine.frame(withTag(asks, 0x6000 | vlan));
  expect(socket(bench)).toMatchObject({ tags: [7, 41], outside: 0 });
  // A priority alone is no network of its own.
  bench.engine.frame(withTag(asks, 0x6000));
  expect(socket(bench).tags).toEqual([7, 41]);
  expect(bench.sent).toEqual([]);
});

test('whose addresses are heard says which planned subnet it is', () => {
  const bench = new EngineBench();
  for (let i = 1; i <= 3; i += 1) bench.has(mac(`02:00:5e:00:54:0${i}`), `10.77.0.${i}`);
  bench.has(mac('02:00:5e:00:54:09'), '192.168.7.9');
  expect(socket(bench)).toMatchObject({ subnets: [{ subnetId: 'hall', count: 3 }], outside: 1 });
});

test('a cable that was pulled is in another socket perhaps', () => {
  const bench = new EngineBench();
  says(bench, 'port5');
  bench.engine.linkChanged('down');
  bench.engine.linkChanged('up');
  expect(socket(bench).neighbour).toBeUndefined();
});
