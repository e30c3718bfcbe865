import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import {
  BROADCAST_FLAG,
  findOption,
  kindOfMessage,
  MESSAGE_TYPES,
  neighbourOf,
  OPTION,
  optionName,
  toHex,
  toLatin1,
  type DhcpMessage,
  type Dissected,
  type OptionCodec,
  type RawOption,
} from '@ipsonomo/core/wire';
import { discoveryView } from './decoded-discovery';

// What was read off the wire, as plain text and numbers: for a person, a file, a command line.

interface OptionView {
  readonly code: number;
  readonly name: string;
  /** By its meaning where Ipsonomo knows one, else hex. */
  readonly value: string | number | readonly string[];
}

interface MessageView {
  /** `BootP request`, `BootP reply`, or the DHCP message type. */
  readonly kind: string;
  readonly mac: string;
  /** Hex, 32 bits. */
  readonly transaction: string;
  readonly seconds: number;
  readonly broadcast: boolean;
  readonly clientAddress: string;
  readonly yourAddress: string;
  readonly serverAddress: string;
  readonly relayAddress: string;
  readonly serverName: string;
  readonly bootFile: string;
  /** Null where the message has no magic cookie. */
  readonly options: readonly OptionView[] | null;
}

type Format = (raw: RawOption) => OptionView['value'] | undefined;

const by =
  <T>(codec: OptionCodec<T>, format: (value: T) => OptionView['value']): Format =>
  (raw) => {
    const value = findOption([raw], codec);
    return value === undefined ? undefined : format(value);
  };

const same = <T>(value: T): T => value;

const FORMATS: ReadonlyMap<number, Format> = new Map(
  (
    [
      [OPTION.subnetMask, by(OPTION.subnetMask, formatIpv4)],
      [OPTION.routers, by(OPTION.routers, (all) => all.map(formatIpv4))],
      [OPTION.nameServers, by(OPTION.nameServers, (all) => all.map(formatIpv4))],
      [OPTION.hostName, by(OPTION.hostName, same)],
      [OPTION.domainName, by(OPTION.domainName, same)],
      [OPTION.requestedAddress, by(OPTION.requestedAddress, formatIpv4)],
      [OPTION.leaseTime, by(OPTION.leaseTime, same)],
      [OPTION.messageType, by(OPTION.messageType, (code) => MESSAGE_TYPES[code - 1] ?? code)],
      [OPTION.broadcastAddress, by(OPTION.broadcastAddress, formatIpv4)],
      [OPTION.serverId, by(OPTION.serverId, formatIpv4)],
      [OPTION.message, by(OPTION.message, same)],
      [OPTION.maximumSize, by(OPTION.maximumSize, same)],
      [OPTION.renewalTime, by(OPTION.renewalTime, same)],
      [OPTION.rebindingTime, by(OPTION.rebindingTime, same)],
      [OPTION.vendorClass, by(OPTION.vendorClass, same)],
    ] as const
  ).map(([codec, format]) => [codec.code, format]),
);

/** One option by its meaning; hex where it has none here or its data is malformed. */
export const optionView = (raw: RawOption): OptionView => ({
  code: raw.code,
  name: optionName(raw.code),
  value: FORMATS.get(raw.code)?.(raw) ?? toHex(raw.data),
});

const textOf = (field: Uint8Array): string => toLatin1(field).replace(/\0.*$/s, '');

export const messageView = (message: DhcpMessage): MessageView => ({
  kind: kindOfMessage(message),
  mac: formatMac(message.clientMac),
  transaction: message.transaction.toString(16).padStart(8, '0'),
  seconds: message.seconds,
  broadcast: (message.flags & BROADCAST_FLAG) !== 0,
  clientAddress: formatIpv4(message.clientAddress),
  yourAddress: formatIpv4(message.yourAddress),
  serverAddress: formatIpv4(message.serverAddress),
  relayAddress: formatIpv4(message.relayAddress),
  serverName: textOf(message.serverName),
  bootFile: textOf(message.bootFile),
  options: message.options?.map(optionView) ?? null,
});

/** Every layer of a frame that was read; the innermost one names the whole. */
export function frameView(frame: Dissected): Readonly<Record<string, unknown>> {
  const { ethernet } = frame;
  const outer = {
    ethernet: {
      from: formatMac(ethernet.from),
      to: formatMac(ethernet.to),
      type: `0x${ethernet.etherType.toString(16).padStart(4, '0')}`,
      ...(ethernet.tag ? { vlan: ethernet.tag.vlan, priority: ethernet.tag.priority } : {}),
    },
  };
  if (frame.kind === 'ethernet')
    return { kind: 'ethernet', ...outer, payload: toHex(ethernet.payload) };
  if (frame.kind === 'arp')
    return { kind: `ARP ${frame.arp.operation}`, ...outer, arp: arpView(frame) };
  if (frame.kind === 'lldp') {
    const said = neighbourOf(ethernet.from, frame.lldp);
    const elements = frame.lldp.map(({ type, data }) => ({ type, value: toHex(data) }));
    return { kind: 'LLDP', ...outer, lldp: { port: said?.port, switch: said?.system, elements } };
  }
  if (frame.kind === 'discovery')
    return { kind: discoveryKind(frame), ...outer, discovery: discoveryView(frame.discovery) };
  const { ip } = frame;
  const layers = {
    ...outer,
    ip: {
      from: formatIpv4(ip.from),
      to: formatIpv4(ip.to),
      protocol: ip.protocol,
      timeToLive: ip.timeToLive,
    },
  };
  switch (frame.kind) {
    case 'ip':
      return { kind: 'IP', ...layers, payload: toHex(ip.payload) };
    case 'icmp': {
      const { data, ...icmp } = frame.icmp;
      return { kind: `ICMP ${icmp.kind}`, ...layers, icmp: { ...icmp, data: toHex(data) } };
    }
    case 'tcp': {
      const { payload, options, ...tcp } = frame.tcp;
      const bytes = { options: toHex(options), payload: toHex(payload) };
      return { kind: 'TCP', ...layers, tcp: { ...tcp, ...bytes } };
    }
    case 'udp':
    case 'dhcp': {
      const { fromPort, toPort, payload } = frame.udp;
      if (frame.kind === 'udp')
        return { kind: 'UDP', ...layers, udp: { fromPort, toPort, payload: toHex(payload) } };
      const { kind, ...message } = messageView(frame.dhcp);
      return { kind, ...layers, udp: { fromPort, toPort }, message };
    }
  }
}

type DiscoveryFrame = Extract<Dissected, { kind: 'discovery' }>;

const discoveryKind = ({ discovery: { act, type } }: DiscoveryFrame): string =>
  `discovery ${act}${type === 'request' ? '' : type === 'success' ? ' answered' : ' refused'}`;

function arpView({ arp }: Extract<Dissected, { kind: 'arp' }>) {
  return {
    senderMac: formatMac(arp.senderMac),
    senderAddress: formatIpv4(arp.senderAddress),
    targetMac: formatMac(arp.targetMac),
    targetAddress: formatIpv4(arp.targetAddress),
  };
}
