import { traitsOf } from '../answering';
import { isDeviceMac, specialBlocksOf, UNSPECIFIED, type Ipv4, type MacAddress } from '../net';
import {
  decodeWith,
  DecodeError,
  encapsulation,
  ENIP_COMMAND,
  ENIP_PORT,
  findOption,
  identityAnswer,
  messageTypeOf,
  neighbourOf,
  OPTION,
  stationOf,
  tryDissect,
  type DhcpMessage,
  type Dissected,
  type PcapRecord,
} from '../wire';
import { emptyStation, type HeardStation, type SaidNetwork } from './station';

/** No more stations than a plant has; beyond that somebody invents MACs. */
const MOST = 100_000;
/** A router has many; what is passed on from more senders than this is not looked at one by one. */
const MOST_ADDRESSES = 64;

type Told = Partial<Omit<HeardStation, 'mac' | 'addresses' | 'networks'>>;

/**
 * R-HEARD-PLAN: who is there, from nothing but frames: whose MAC has which addresses, names and identity, and what networks
 * somebody said there are. An address is a station's own where it said so itself (ARP, RFC 826; ACD, RFC 5227, claims
 * none), where a DHCP server gave it, or where its packets come with a fresh lifetime: one that a router passed on is one
 * less (RFC 1812 §5.3.1), and hosts begin with 32, 64, 128 or 255 (common practice, no source).
 */
export class HeardBook {
  private readonly all = new Map<MacAddress, HeardStation>();
  /** Frames, and those of them that could not be read. */
  frames = 0;
  unread = 0;

  take({ frame, at }: PcapRecord): void {
    this.frames += 1;
    const found = tryDissect(frame);
    if (found instanceof DecodeError) {
      this.unread += 1;
      return;
    }
    const { from, tag } = found.ethernet;
    if (isDeviceMac(from)) {
      const known = this.all.get(from);
      this.learn(from, at, {
        vlan: tag && tag.vlan > 0 ? tag.vlan : undefined,
        frames: (known?.frames ?? 0) + 1,
      });
      this.hear(found, from, at);
    }
    if (found.kind === 'dhcp') this.dhcp(found.dhcp, from, at);
  }

  /** In the order in which they were heard first. */
  stations(): readonly HeardStation[] {
    return [...this.all.values()].filter(({ mac }) => mac !== undefined);
  }

  private hear(found: Dissected, from: MacAddress, at: number): void {
    switch (found.kind) {
      case 'arp':
        // Who probes an address has it not yet, and says so with none of its own.
        if (found.arp.senderMac === from) this.owns(from, found.arp.senderAddress);
        return;
      case 'discovery':
        return this.discovered(found, from, at);
      case 'lldp': {
        const said = neighbourOf(from, found.lldp);
        if (said) this.learn(from, at, { systemName: said.system });
        return;
      }
      case 'ethernet':
        return;
      default:
        this.packet(found, from, at);
    }
  }

  private packet(
    found: Extract<Dissected, { readonly ip: unknown }>,
    from: MacAddress,
    at: number,
  ): void {
    const { ip } = found;
    if (isOwnLifetime(ip.timeToLive)) this.owns(from, ip.from);
    else if (!isNever(ip.from)) this.learn(from, at, { forwards: true });
    const isAnswer =
      (found.kind === 'udp' && found.udp.fromPort === ENIP_PORT) ||
      (found.kind === 'tcp' && found.tcp.fromPort === ENIP_PORT);
    if (isAnswer && isOwnLifetime(ip.timeToLive))
      this.identified(from, at, found.kind === 'udp' ? found.udp.payload : found.tcp.payload);
  }

  /** What answers ListIdentity says who it is. */
  private identified(from: MacAddress, at: number, payload: Uint8Array): void {
    if (payload.length < 26 || payload[0] !== ENIP_COMMAND.listIdentity) return;
    try {
      const { data } = decodeWith(encapsulation, payload);
      const { vendor, type, product, name, serial } = decodeWith(identityAnswer, data);
      const hex = serial.toString(16).toUpperCase().padStart(8, '0');
      this.learn(from, at, {
        identity: { by: 'EtherNet/IP', vendor, type, product, name, serial: hex },
      });
    } catch (error) {
      if (!(error instanceof DecodeError)) throw error;
    }
  }

  private discovered(
    { discovery }: Extract<Dissected, { readonly kind: 'discovery' }>,
    from: MacAddress,
    at: number,
  ): void {
    const tellsOfItself =
      discovery.type === 'success' ? discovery.act !== 'set' : discovery.act === 'hello';
    if (!tellsOfItself) return;
    const { mac, name, type, vendor, device, address } = stationOf(from, discovery);
    if (!isDeviceMac(mac)) return;
    this.learn(mac, at, {
      ...(name === undefined ? {} : { stationName: name }),
      ...(vendor === undefined || device === undefined
        ? {}
        : {
            identity: {
              ...{ by: 'PROFINET', vendor, product: device, type: undefined },
              ...{ name: type ?? '', serial: '' },
            },
          }),
    });
    if (!address || address.address === UNSPECIFIED) return;
    this.owns(mac, address.address, { mask: address.mask, gateway: gatewayOf(address.gateway) });
  }

  /** A request tells of who asks, whoever passed it on; an answer of the one it is for, and of who gives. */
  private dhcp(message: DhcpMessage, from: MacAddress, at: number): void {
    const { clientMac } = message;
    if (!isDeviceMac(clientMac)) return;
    if (message.operation === 'request') {
      const { hostName = '', vendorClass = '', protocol } = traitsOf(message);
      this.learn(clientMac, at, {
        ...(hostName === '' ? {} : { hostName }),
        ...(vendorClass === '' ? {} : { vendorClass }),
        asks: protocol,
      });
      if (message.clientAddress !== UNSPECIFIED) this.owns(clientMac, message.clientAddress);
      return;
    }
    if (isDeviceMac(from) && message.relayAddress === UNSPECIFIED)
      this.learn(from, at, { servesDhcp: true });
    // An offer is none yet; one that says no type is BootP's, which is all there is.
    const type = messageTypeOf(message);
    if (type !== undefined && type !== 'ACK') return;
    const options = message.options ?? [];
    const given = findOption(options, OPTION.hostName) ?? '';
    this.learn(clientMac, at, given === '' ? {} : { hostName: given });
    if (message.yourAddress === UNSPECIFIED) return;
    const mask = findOption(options, OPTION.subnetMask);
    const [gateway] = findOption(options, OPTION.routers) ?? [];
    this.owns(clientMac, message.yourAddress, mask === undefined ? undefined : { mask, gateway });
  }

  private learn(mac: MacAddress, at: number, told: Told): void {
    const known = this.all.get(mac);
    if (!known && this.all.size >= MOST) return;
    const before = known ?? emptyStation(mac, at);
    this.all.set(mac, {
      ...before,
      ...told,
      // A tag that was seen once is not forgotten for a frame without.
      vlan: told.vlan ?? before.vlan,
      lastAt: Math.max(before.lastAt, at),
    });
  }

  private owns(mac: MacAddress, address: Ipv4, network?: SaidNetwork): void {
    const known = this.all.get(mac) ?? emptyStation(mac);
    if (isNever(address)) return;
    const isNew = !known.addresses.includes(address);
    if (isNew && known.addresses.length >= MOST_ADDRESSES) return;
    if (!isNew && !network) return;
    this.all.set(mac, {
      ...known,
      addresses: isNew ? [...known.addresses, address] : known.addresses,
      networks: network ? new Map([...known.networks, [address, network]]) : known.networks,
    });
  }
}

const gatewayOf = (address: Ipv4): Ipv4 | undefined =>
  address === UNSPECIFIED ? undefined : address;

const FRESH: ReadonlySet<number> = new Set([32, 64, 128, 255]);
const isOwnLifetime = (ttl: number): boolean => FRESH.has(ttl);

/** No device has such an address, whoever says so; one that it chose for itself says that it has none (RFC 3927). */
const isNever = (address: Ipv4): boolean =>
  specialBlocksOf(address).some(({ use, name }) => use === 'never' || name === 'Link Local');
