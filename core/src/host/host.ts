import {
  BROADCAST_MAC,
  containsAddress,
  LIMITED_BROADCAST,
  lastOf,
  prefixOf,
  toIpv4,
  UNSPECIFIED,
  ZERO_MAC,
  type Ipv4,
  type MacAddress,
} from '../net';
import {
  arpFrame,
  droppedEchoOf,
  encodeWith,
  icmp,
  ipFrame,
  ipv4PacketOf,
  PROTOCOL,
  tcp,
  TCP_FLAG,
  udpPacket,
  type ArpPacket,
  type Dissected,
  type IcmpMessage,
  type Ipv4Packet,
  type TcpSegment,
} from '../wire';
import type { HostAddress, HostInput, HostNews, HostState, HostStep, Millis } from './state';
import {
  acceptTcp,
  closeTcp,
  openTcpConnection,
  receiveTcp,
  refusalOf,
  sendTcp,
  type TcpStep,
} from './tcp-endpoint';

/** R-DEFEND (RFC 5227 §2.4 (c)): an address is defended at most every ten seconds. */
const DEFEND_INTERVAL: Millis = 10_000;
const ARP_RETRY: Millis = 1000;
const ARP_ASKS = 3;
const PING_DATA = Uint8Array.from({ length: 32 }, (_, i) => 0x61 + (i % 23));

/**
 * One step of a host's life: pure, so the same code is Ipsonomo's own voice and every device of the
 * practice site. `now` must not go backwards.
 */
export function stepHost(state: HostState, input: HostInput, now: Millis): HostStep {
  switch (input.kind) {
    case 'frame':
      return receive(state, input.frame, now);
    case 'tick':
      return tick(state, now);
    case 'configure':
      return quiet({ ...state, configured: input.to, claim: undefined, neighbours: new Map() });
    case 'claim': {
      const { wanted, timing } = input;
      return tick(
        { ...state, claim: { wanted, timing, probesLeft: timing.probes, nextAt: now } },
        now,
      );
    }
    case 'ask-arp':
      return { state, frames: [arpRequest(state, input.target)], news: [] };
    case 'ping': {
      const { identifier, sequence } = input;
      const echo: IcmpMessage = { kind: 'echo-request', identifier, sequence, data: PING_DATA };
      const from = state.configured?.address ?? UNSPECIFIED;
      const payload = encodeWith(icmp, echo);
      const packet = ipv4PacketOf({ from, to: input.to, protocol: PROTOCOL.icmp, payload });
      const { timeToLive = packet.timeToLive } = input;
      return sendPacket(state, { ...packet, timeToLive }, now);
    }
    case 'send-udp': {
      const from = state.configured?.address ?? UNSPECIFIED;
      return sendPacket(state, udpPacket({ ...input, from }, input.payload), now);
    }
    case 'send-packet':
      return sendPacket(state, input.packet, now);
    case 'connect':
      return connect(state, input.id, input.to, input.port, now);
    case 'write':
      return onConnection(state, input.id, now, (connection) => sendTcp(connection, input.data));
    case 'close':
      return onConnection(state, input.id, now, closeTcp);
  }
}

/** When the host next wants a tick; undefined while nothing is pending. */
export function nextTickOf(state: HostState): Millis | undefined {
  const times = state.waiting.map((item) => item.nextAt);
  if (state.claim) times.push(state.claim.nextAt);
  return times.length === 0 ? undefined : Math.min(...times);
}

const quiet = (state: HostState): HostStep => ({ state, frames: [], news: [] });

/** Runs a second step after the first and joins what both said. */
function then(first: HostStep, next: (state: HostState) => HostStep): HostStep {
  const second = next(first.state);
  return {
    state: second.state,
    frames: [...first.frames, ...second.frames],
    news: [...first.news, ...second.news],
  };
}

// ---- ARP

function arpRequest(state: HostState, target: Ipv4, sender?: Ipv4): Uint8Array {
  const { mac } = state.traits;
  return arpFrame(mac, BROADCAST_MAC, {
    operation: 'request',
    senderMac: mac,
    senderAddress: sender ?? state.configured?.address ?? UNSPECIFIED,
    targetMac: ZERO_MAC,
    targetAddress: target,
  });
}

/** RFC 5227 §1.1: an announcement names our address as sender and as target. */
const announcement = (state: HostState, address: Ipv4): Uint8Array =>
  arpRequest(state, address, address);

function receive(state: HostState, frame: Dissected, now: Millis): HostStep {
  const { mac } = state.traits;
  if (frame.ethernet.from === mac) return quiet(state);
  if (frame.kind === 'arp') return receiveArp(state, frame.arp, now);
  if (frame.ethernet.to !== mac && frame.ethernet.to !== BROADCAST_MAC) return quiet(state);
  if (frame.kind === 'ethernet' || frame.kind === 'discovery' || frame.kind === 'lldp')
    return quiet(state);
  return receiveIp(state, frame, now);
}

function receiveArp(state: HostState, packet: ArpPacket, now: Millis): HostStep {
  const checked = receiveConflict(state, packet, now);
  const { configured, traits } = checked.state;
  if (!configured) return checked;
  const learned = then(checked, (next) => learn(next, packet, now));
  if (packet.operation !== 'request' || packet.targetAddress !== configured.address) return learned;
  if (packet.senderAddress === configured.address) return learned;
  const reply = arpFrame(traits.mac, packet.senderMac, {
    operation: 'reply',
    senderMac: traits.mac,
    senderAddress: configured.address,
    targetMac: packet.senderMac,
    targetAddress: packet.senderAddress,
  });
  return { ...learned, frames: [...learned.frames, reply] };
}

/** R-CLAIM: RFC 5227 §2.1.1 while probing, §2.4 while holding an address. */
function receiveConflict(state: HostState, packet: ArpPacket, now: Millis): HostStep {
  const { claim, configured } = state;
  const mac = packet.senderMac;
  if (claim) {
    const { address } = claim.wanted;
    const theirs = packet.senderAddress === address;
    const theirProbe =
      packet.operation === 'request' &&
      packet.senderAddress === UNSPECIFIED &&
      packet.targetAddress === address;
    if (theirs || theirProbe)
      return {
        state: { ...state, claim: undefined },
        frames: [],
        news: [{ kind: 'conflict', address, mac }],
      };
  }
  if (!configured || packet.senderAddress !== configured.address) return quiet(state);
  const news: HostNews[] = [{ kind: 'conflict', address: configured.address, mac }];
  if (state.defendedAt !== undefined && now - state.defendedAt < DEFEND_INTERVAL)
    return { state, frames: [], news };
  const frames = [announcement(state, configured.address)];
  return { state: { ...state, defendedAt: now }, frames, news };
}

/** Remembers a neighbour and sends what was waiting for it. */
function learn(state: HostState, packet: ArpPacket, now: Millis): HostStep {
  const address = packet.senderAddress;
  if (address === UNSPECIFIED) return quiet(state);
  const forUs =
    packet.targetAddress === state.configured?.address ||
    state.neighbours.has(address) ||
    state.waiting.some((item) => item.nextHop === address);
  if (!forUs) return quiet(state);
  const neighbours = new Map(state.neighbours).set(address, packet.senderMac);
  const ready = state.waiting.filter((item) => item.nextHop === address);
  const waiting = state.waiting.filter((item) => item.nextHop !== address);
  return ready.reduce<HostStep>(
    (step, item) => then(step, (next) => sendPacket(next, item.packet, now)),
    quiet({ ...state, neighbours, waiting }),
  );
}

// ---- time

function tick(state: HostState, now: Millis): HostStep {
  return then(tickClaim(state, now), (next) => tickWaiting(next, now));
}

function tickClaim(state: HostState, now: Millis): HostStep {
  const { claim } = state;
  if (!claim || claim.nextAt > now) return quiet(state);
  const { address } = claim.wanted;
  if (claim.probesLeft > 0) {
    const probesLeft = claim.probesLeft - 1;
    const nextAt = now + (probesLeft > 0 ? claim.timing.interval : claim.timing.wait);
    const frames = [arpRequest(state, address, UNSPECIFIED)];
    return { state: { ...state, claim: { ...claim, probesLeft, nextAt } }, frames, news: [] };
  }
  const configured: HostAddress = claim.wanted;
  return {
    state: { ...state, configured, claim: undefined },
    frames: [announcement(state, address)],
    news: [{ kind: 'claimed', address }],
  };
}

function tickWaiting(state: HostState, now: Millis): HostStep {
  if (!state.waiting.some((item) => item.nextAt <= now)) return quiet(state);
  const frames: Uint8Array[] = [];
  const news: HostNews[] = [];
  const asked = new Set<Ipv4>();
  const waiting = state.waiting.flatMap((item) => {
    if (item.nextAt > now) return [item];
    if (item.asks >= ARP_ASKS) {
      news.push({ kind: 'unreachable', to: item.packet.to, nextHop: item.nextHop });
      return [];
    }
    if (!asked.has(item.nextHop)) frames.push(arpRequest(state, item.nextHop));
    asked.add(item.nextHop);
    return [{ ...item, asks: item.asks + 1, nextAt: now + ARP_RETRY }];
  });
  return { state: { ...state, waiting }, frames, news };
}

// ---- IP

/** The neighbour a packet to this address is handed to; undefined where there is no way. */
export function nextHopOf(from: HostAddress, to: Ipv4): Ipv4 | undefined {
  if (containsAddress(prefixOf(from.address, from.length), to)) return to;
  return from.gateway;
}

function isBroadcast(configured: HostAddress | undefined, to: Ipv4): boolean {
  if (to === LIMITED_BROADCAST) return true;
  if (!configured || configured.length >= 31) return false;
  return to === lastOf(prefixOf(configured.address, configured.length));
}

function sendPacket(state: HostState, packet: Ipv4Packet, now: Millis): HostStep {
  const { configured, traits } = state;
  const numbered = packet.identification
    ? packet
    : { ...packet, identification: state.sent & 0xffff };
  const counted = { ...state, sent: state.sent + 1 };
  const emit = (to: MacAddress): HostStep => ({
    state: counted,
    frames: [ipFrame(traits.mac, to, numbered)],
    news: [],
  });
  if (isBroadcast(configured, packet.to)) return emit(BROADCAST_MAC);
  const nextHop = configured ? nextHopOf(configured, packet.to) : undefined;
  if (nextHop === undefined)
    return {
      state,
      frames: [],
      news: [{ kind: 'unreachable', to: packet.to, nextHop: packet.to }],
    };
  const known = counted.neighbours.get(nextHop);
  if (known !== undefined) return emit(known);
  const alreadyAsked = state.waiting.some((item) => item.nextHop === nextHop);
  const item = { nextHop, packet: numbered, asks: 1, nextAt: now + ARP_RETRY };
  return {
    state: { ...counted, waiting: [...counted.waiting, item] },
    frames: alreadyAsked ? [] : [arpRequest(state, nextHop)],
    news: [],
  };
}

function sendFromHere(
  state: HostState,
  to: Ipv4,
  protocol: number,
  payload: Uint8Array,
  now: Millis,
): HostStep {
  const from = state.configured?.address ?? UNSPECIFIED;
  return sendPacket(state, ipv4PacketOf({ from, to, protocol, payload }), now);
}

type IpFrame = Exclude<Dissected, { kind: 'arp' | 'ethernet' | 'discovery' | 'lldp' }>;

function receiveIp(state: HostState, frame: IpFrame, now: Millis): HostStep {
  const { configured, traits } = state;
  const { ip } = frame;
  const broadcast = isBroadcast(configured, ip.to);
  if (!broadcast && ip.to !== configured?.address) {
    const news: HostNews[] = traits.forwards ? [{ kind: 'transit', packet: ip }] : [];
    return { state, frames: [], news };
  }
  switch (frame.kind) {
    case 'udp':
    case 'dhcp': {
      const { fromPort, toPort, payload } = frame.udp;
      const news: HostNews = { kind: 'udp', from: ip.from, fromPort, toPort, payload };
      return { state, frames: [], news: [news] };
    }
    case 'icmp':
      return broadcast ? quiet(state) : receiveIcmp(state, ip, frame.icmp, now);
    case 'tcp':
      return broadcast ? quiet(state) : receiveSegment(state, ip.from, frame.tcp, now);
    case 'ip':
      return quiet(state);
  }
}

function receiveIcmp(
  state: HostState,
  ip: Ipv4Packet,
  message: IcmpMessage,
  now: Millis,
): HostStep {
  if (message.kind === 'echo-reply') {
    const { identifier, sequence } = message;
    return { state, frames: [], news: [{ kind: 'pong', from: ip.from, identifier, sequence }] };
  }
  const dropped = droppedEchoOf(message);
  if (dropped) return { state, frames: [], news: [{ kind: 'dropped', from: ip.from, ...dropped }] };
  if (message.kind !== 'echo-request' || !state.traits.answersPing) return quiet(state);
  const reply = encodeWith(icmp, { ...message, kind: 'echo-reply' });
  return sendFromHere(state, ip.from, PROTOCOL.icmp, reply, now);
}

// ---- TCP

const connectionKey = (remote: Ipv4, remotePort: number, localPort: number): string =>
  `${remote}:${remotePort}:${localPort}`;

function connect(state: HostState, id: string, to: Ipv4, port: number, now: Millis): HostStep {
  const localPort = 49152 + (state.sent % 16384);
  const ends = { id, localPort, remote: to, remotePort: port };
  return applyTcp(state, openTcpConnection(ends, now * 250), now);
}

function onConnection(
  state: HostState,
  id: string,
  now: Millis,
  act: (connection: TcpStep['connection']) => TcpStep,
): HostStep {
  for (const connection of state.connections.values())
    if (connection.id === id) return applyTcp(state, act(connection), now);
  return quiet(state);
}

function receiveSegment(state: HostState, from: Ipv4, segment: TcpSegment, now: Millis): HostStep {
  const key = connectionKey(from, segment.fromPort, segment.toPort);
  const known = state.connections.get(key);
  if (known) return applyTcp(state, receiveTcp(known, segment), now);
  const isSyn = (segment.flags & (TCP_FLAG.syn | TCP_FLAG.ack)) === TCP_FLAG.syn;
  if (isSyn && state.traits.tcpPorts.includes(segment.toPort))
    return applyTcp(state, acceptTcp(key, from, segment, now * 250), now);
  if (segment.flags & TCP_FLAG.rst) return quiet(state);
  return sendSegment(state, from, refusalOf(segment), now);
}

function sendSegment(state: HostState, to: Ipv4, segment: TcpSegment, now: Millis): HostStep {
  const from = state.configured?.address ?? toIpv4(0);
  return sendFromHere(state, to, PROTOCOL.tcp, encodeWith(tcp(from, to), segment), now);
}

function applyTcp(state: HostState, step: TcpStep, now: Millis): HostStep {
  const { connection } = step;
  const key = connectionKey(connection.remote, connection.remotePort, connection.localPort);
  const connections = new Map(state.connections);
  if (connection.phase === 'gone') connections.delete(key);
  else connections.set(key, connection);
  const start: HostStep = { state: { ...state, connections }, frames: [], news: step.news };
  return step.segments.reduce<HostStep>(
    (done, segment) => then(done, (next) => sendSegment(next, connection.remote, segment, now)),
    start,
  );
}
