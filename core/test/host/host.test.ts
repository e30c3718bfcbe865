import {
  newHost,
  nextHopOf,
  nextTickOf,
  RFC_5227_TIMING,
  stepHost,
  type HostAddress,
  type HostInput,
  type HostNews,
  type HostState,
} from '../../src/host';
import {
  BROADCAST_MAC,
  formatIpv4,
  toPrefixLength,
  UNSPECIFIED,
  ZERO_MAC,
  type MacAddress,
} from '../../src/net';
import { arpFrame, dissect, droppedEchoOf, dropMessage, PROTOCOL } from '../../src/wire';
import { ip, mac, PINGED } from '../wire/samples';

const A = mac('02:00:5e:00:53:01');
const B = mac('02:00:5e:00:53:02');
const at = (address: string, gateway?: string, length = 24): HostAddress => ({
  address: ip(address),
  length: toPrefixLength(length),
  ...(gateway ? { gateway: ip(gateway) } : {}),
});

/** Hosts on one cable: every frame reaches every other host, in order. */
class Cable {
  now = 0;
  readonly news: (readonly [MacAddress, HostNews])[] = [];
  readonly frames: Uint8Array[] = [];
  private readonly hosts = new Map<MacAddress, HostState>();

  add(address: MacAddress, configured?: HostAddress, tcpPorts: readonly number[] = []): this {
    const traits = { mac: address, answersPing: true, forwards: false, tcpPorts };
    this.hosts.set(address, newHost(traits, configured));
    return this;
  }

  step(who: MacAddress, input: HostInput): void {
    const host = this.hosts.get(who);
    if (!host) throw new Error('no such host');
    const { state, frames, news } = stepHost(host, input, this.now);
    this.hosts.set(who, state);
    for (const one of news) this.news.push([who, one]);
    for (const frame of frames) this.put(who, frame);
  }

  put(from: MacAddress, frame: Uint8Array): void {
    this.frames.push(frame);
    for (const other of this.hosts.keys())
      if (other !== from) this.step(other, { kind: 'frame', frame: dissect(frame) });
  }

  advance(millis: number): void {
    const until = this.now + millis;
    for (;;) {
      const due = [...this.hosts].map(
        ([who, host]) => [who, nextTickOf(host) ?? Infinity] as const,
      );
      const [who, time] = due.reduce((a, b) => (b[1] < a[1] ? b : a));
      if (time > until) break;
      this.now = Math.max(this.now, time);
      this.step(who, { kind: 'tick' });
    }
    this.now = until;
  }

  kinds = (who: MacAddress) => this.news.filter(([by]) => by === who).map(([, one]) => one.kind);
  host = (who: MacAddress) => this.hosts.get(who);
}

const arpKinds = (cable: Cable) =>
  cable.frames.map((frame) => {
    const found = dissect(frame);
    if (found.kind !== 'arp') return found.kind;
    const { operation, senderAddress, targetAddress } = found.arp;
    if (senderAddress === UNSPECIFIED) return `probe ${formatIpv4(targetAddress)}`;
    return senderAddress === targetAddress
      ? `announce ${formatIpv4(targetAddress)}`
      : `${operation} ${formatIpv4(targetAddress)}`;
  });

const claim = (address: string): HostInput => ({
  kind: 'claim',
  wanted: at(address),
  timing: RFC_5227_TIMING,
});

test('R-CLAIM, RFC 5227 §2.1.1: three probes, two seconds of silence, then an announcement', () => {
  const cable = new Cable().add(A);
  cable.step(A, claim('10.0.0.5'));
  cable.advance(2 * 1500 + 1999);
  expect(arpKinds(cable)).toEqual(Array.from({ length: 3 }, () => 'probe 10.0.0.5'));
  cable.advance(1);
  expect(arpKinds(cable).at(-1)).toBe('announce 10.0.0.5');
  expect(cable.news).toEqual([[A, { kind: 'claimed', address: ip('10.0.0.5') }]]);
});

test('RFC 5227 §2.1.1: an answer while probing is a conflict, and names who has it', () => {
  const cable = new Cable().add(A).add(B, at('10.0.0.5'));
  cable.step(A, claim('10.0.0.5'));
  cable.advance(10_000);
  expect(cable.news).toEqual([[A, { kind: 'conflict', address: ip('10.0.0.5'), mac: B }]]);
  expect(cable.host(A)?.configured).toBeUndefined();
});

test('RFC 5227 §2.1.1: two that probe for one address at the same time both refrain', () => {
  const cable = new Cable().add(A).add(B);
  cable.step(A, claim('10.0.0.5'));
  cable.step(B, claim('10.0.0.5'));
  cable.advance(10_000);
  expect(cable.kinds(A)).toEqual(['conflict']);
});

test('R-DEFEND, RFC 5227 §2.4 (c): an address is defended, at most once in ten seconds', () => {
  const cable = new Cable().add(A, at('10.0.0.5'));
  const gratuitous = arpFrame(B, BROADCAST_MAC, {
    operation: 'request',
    senderMac: B,
    senderAddress: ip('10.0.0.5'),
    targetMac: ZERO_MAC,
    targetAddress: ip('10.0.0.5'),
  });
  const announced = () => arpKinds(cable).filter((kind) => kind.startsWith('announce')).length;
  cable.put(B, gratuitous);
  cable.put(B, gratuitous);
  expect(announced()).toBe(3); // both of B's, and one defence
  cable.now = 10_000;
  cable.put(B, gratuitous);
  expect(announced()).toBe(5);
});

test('an echo request that a router gave up is told with who gave it up', () => {
  const message = dropMessage('exceeded', PINGED);
  expect(droppedEchoOf(message)).toEqual({
    ...{ drop: 'exceeded', to: ip('172.22.41.80'), identifier: 7, sequence: 9 },
  });
  for (const drop of ['net-unreachable', 'host-unreachable', 'unreachable'] as const)
    expect(droppedEchoOf(dropMessage(drop, PINGED))).toMatchObject({ drop, sequence: 9 });
  if (message.kind !== 'other') throw new Error('no error message');
  // Of another protocol, of something else, or cut: it speaks of none of ours.
  for (const change of [
    (data: Uint8Array) => data.fill(PROTOCOL.udp, 13, 14),
    (data: Uint8Array) => data.fill(0, 24, 25),
    (data: Uint8Array) => data.subarray(0, 31),
  ])
    expect(droppedEchoOf({ ...message, data: change(message.data.slice()) })).toBeUndefined();
});

test('ping: asks for the MAC once, then echoes back and forth', () => {
  const cable = new Cable().add(A, at('10.0.0.1')).add(B, at('10.0.0.2'));
  for (const sequence of [1, 2])
    cable.step(A, { kind: 'ping', to: ip('10.0.0.2'), identifier: 7, sequence });
  expect(arpKinds(cable)).toEqual([
    'request 10.0.0.2',
    'reply 10.0.0.1',
    'icmp',
    'icmp',
    'icmp',
    'icmp',
  ]);
  expect(cable.kinds(A)).toEqual(['pong', 'pong']);
});

test('three asks in vain, and the packet is given up', () => {
  const cable = new Cable().add(A, at('10.0.0.1'));
  cable.step(A, { kind: 'ping', to: ip('10.0.0.2'), identifier: 7, sequence: 1 });
  cable.advance(2999);
  expect(arpKinds(cable)).toHaveLength(3);
  expect(cable.news).toEqual([]);
  cable.advance(1);
  const gone = { kind: 'unreachable', to: ip('10.0.0.2'), nextHop: ip('10.0.0.2') };
  expect(cable.news).toEqual([[A, gone]]);
});

// RFC 1122 §3.3.1.1: on the connected network directly, else through the gateway.
test.each([
  ['10.0.0.1', 24, '10.0.0.254', '10.0.0.9', '10.0.0.9'],
  ['10.0.0.1', 24, '10.0.0.254', '10.0.1.9', '10.0.0.254'],
  ['10.0.0.1', 16, '10.0.0.254', '10.0.1.9', '10.0.1.9'],
  ['10.0.0.1', 24, undefined, '10.0.1.9', undefined],
  ['10.0.0.4', 31, undefined, '10.0.0.5', '10.0.0.5'],
  ['10.0.0.4', 32, '10.0.0.5', '10.0.0.5', '10.0.0.5'],
])('from %s/%i with gateway %s to %s: %s', (from, length, gateway, to, expected) => {
  const hop = nextHopOf(at(from, gateway, length), ip(to));
  expect(hop === undefined ? undefined : formatIpv4(hop)).toBe(expected);
});

test('a connection: opened, written both ways, closed from one side and then the other', () => {
  const cable = new Cable().add(A, at('10.0.0.1')).add(B, at('10.0.0.2'), [44818]);
  cable.step(A, { kind: 'connect', id: 'a', to: ip('10.0.0.2'), port: 44818 });
  cable.step(A, { kind: 'write', id: 'a', data: new Uint8Array(3000).fill(7) });
  const accepted = cable.news.find(([, one]) => one.kind === 'accepted')?.[1];
  if (accepted?.kind !== 'accepted') throw new Error('not accepted');
  cable.step(B, { kind: 'write', id: accepted.id, data: Uint8Array.of(1, 2, 3) });
  const received = (who: MacAddress) =>
    cable.news.flatMap(([by, one]) => (by === who && one.kind === 'received' ? [...one.data] : []));
  expect(received(B)).toHaveLength(3000);
  expect(received(A)).toEqual([1, 2, 3]);
  cable.step(A, { kind: 'close', id: 'a' });
  expect(cable.kinds(A).at(-1)).toBe('closed');
  expect(cable.kinds(B).at(-1)).toBe('closed');
  expect([cable.host(A)?.connections.size, cable.host(B)?.connections.size]).toEqual([0, 0]);
});

test('a port nobody listens on refuses at once (RFC 9293 §3.10.7.1)', () => {
  const cable = new Cable().add(A, at('10.0.0.1')).add(B, at('10.0.0.2'));
  cable.step(A, { kind: 'connect', id: 'a', to: ip('10.0.0.2'), port: 80 });
  expect(cable.kinds(A)).toEqual(['refused']);
});

test('packets for others are dropped, or handed over by one that forwards', () => {
  const cable = new Cable().add(A, at('10.0.0.1', '10.0.0.2')).add(B, at('10.0.0.2'));
  cable.step(A, { kind: 'ping', to: ip('10.9.9.9'), identifier: 7, sequence: 1 });
  expect(cable.kinds(B)).toEqual([]);
  const traits = { mac: B, answersPing: true, forwards: true, tcpPorts: [] };
  const router = newHost(traits, at('10.0.0.2'));
  const packet = cable.frames.map((frame) => dissect(frame)).find((one) => one.kind === 'icmp');
  if (!packet) throw new Error('no packet');
  const { news } = stepHost(router, { kind: 'frame', frame: packet }, 0);
  expect(news.map((one) => one.kind)).toEqual(['transit']);
});
