import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { HeardClient } from '@ipsonomo/core/answering';
import { timerClock } from '@ipsonomo/core/clock';
import {
  BROADCAST_MAC,
  formatIpv4,
  LIMITED_BROADCAST,
  must,
  parseIpv4,
  parseMac,
  toPrefixLength,
  UNSPECIFIED,
  ZERO_MAC,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core/net';
import { findShelfKind, type Kind } from '@ipsonomo/core/plan';
import {
  arpFrame,
  dhcpFrame,
  dhcpMessageOf,
  dissect,
  kindOfMessage,
  messageTypeCode,
  OPTION,
  rawOption,
  type MessageType,
  type RawOption,
} from '@ipsonomo/core/wire';
import { PLATFORM } from '../../threads/src/time';
import { FieldEngine } from '../src/engine/engine';
import type { FieldEvent, FieldPlan, FieldTarget } from '../src/protocol';
import { capturedIn } from './captured';

export const ip = (text: string): Ipv4 => must(parseIpv4(text));
export const mac = (text: string): MacAddress => must(parseMac(text));

export const LAPTOP = mac('02:00:5e:00:53:f0');
export const DRIVE = mac('02:00:5e:00:53:11');
export const STRANGER = mac('02:00:5e:00:53:77');

export function kindOf(id: string): Kind {
  const kind = findShelfKind(id);
  if (!kind) throw new Error(id);
  return kind;
}

/** What is planned of a device, where nothing is but what is said. */
export const wanted = (fields: Partial<FieldTarget['proof']>): FieldTarget['proof'] => ({
  ...{ checks: [], identity: undefined, station: undefined, orderNumber: '', revision: '' },
  ...{ serial: '', services: [], assemblies: [], modules: [], offers: [], ...fields },
});

export const target = (fields: Partial<FieldTarget> = {}): FieldTarget => ({
  interfaceId: 'drive',
  jobId: 'job',
  title: 'Drum filter drive 1',
  subnetId: 'hall',
  mac: DRIVE,
  key: { by: 'mac' },
  address: ip('10.77.0.85'),
  lentUntil: undefined,
  length: toPrefixLength(24),
  gateway: undefined,
  hostName: 'fh2-drive-1',
  way: 'bootp',
  factory: undefined,
  page: undefined,
  hasIdentity: false,
  revision: '',
  controller: '',
  controllerAt: [],
  proof: wanted({ checks: ['arp', 'ping'] }),
  stationName: 'fh2-drive-1',
  answersPing: true,
  heardBy: 'asked',
  bootSeconds: 3,
  holds: false,
  ...fields,
});

export const planOf = (targets: readonly FieldTarget[], voices = ['10.77.0.253']): FieldPlan => ({
  jobId: 'job',
  targets,
  subnets: [
    {
      id: 'hall',
      name: 'Filter hall',
      network: ip((voices[0] ?? '').replace(/\d+$/, '0')),
      length: toPrefixLength(24),
      gateway: undefined,
      voices: voices.map(ip),
      servers: [ip('10.77.0.8')],
    },
  ],
});

interface Asked {
  readonly type?: MessageType;
  readonly transaction?: number;
  readonly more?: readonly RawOption[];
  readonly clientAddress?: Ipv4;
}

/** The engine on a wire that is only a list, under a clock that the test moves. */
export class EngineBench {
  now = 1_000_000;
  readonly sent: Uint8Array[] = [];
  readonly events: FieldEvent[] = [];
  readonly heard = new Map<MacAddress, HeardClient>();
  readonly folder = mkdtempSync(join(tmpdir(), 'ipsonomo-engine-'));
  readonly engine: FieldEngine;

  constructor(plan: FieldPlan = planOf([target()])) {
    const carrier = {
      source: 'live:test0',
      mac: LAPTOP,
      send: (frame: Uint8Array) => void this.sent.push(frame),
      openTcp: undefined,
      askUdp: undefined,
      close: () => undefined,
    };
    const clock = timerClock({ ...PLATFORM, now: () => this.now });
    this.engine = new FieldEngine(carrier, clock, this.folder, {
      events: (events) => this.events.push(...events),
      heard: (client) => this.heard.set(client.mac, client),
      forgot: (client) => this.heard.delete(client),
      stations: () => undefined,
      present: () => undefined,
      vigil: () => undefined,
      changed: () => undefined,
    });
    this.engine.plan(plan);
    this.engine.listen('run');
  }

  advance(millis: number): void {
    const until = this.now + millis;
    for (let next = this.engine.nextAt(); next <= until; next = this.engine.nextAt()) {
      this.now = Math.max(this.now, next);
      this.engine.run(this.now);
    }
    this.now = until;
    this.engine.run(this.now);
  }

  /** Answers, with its own address claimed and every planned one probed. */
  arm(millis = 600_000): void {
    this.engine.arm(millis, 'Mara Quist');
    this.advance(7000);
  }

  asks(from: MacAddress, { type, transaction = 1, more = [], clientAddress }: Asked = {}): void {
    const options = type ? [rawOption(OPTION.messageType, messageTypeCode(type)), ...more] : more;
    const message = dhcpMessageOf({
      ...{ operation: 'request', transaction, clientMac: from, options },
      ...(clientAddress === undefined ? {} : { clientAddress }),
    });
    const ends = {
      from: clientAddress ?? UNSPECIFIED,
      fromPort: 68,
      to: LIMITED_BROADCAST,
      toPort: 67,
    };
    this.engine.frame(dhcpFrame(from, ends, message));
  }

  /** A reply of some other server. */
  rivalOffers(to: MacAddress, server = '10.77.0.9'): void {
    const options = [
      rawOption(OPTION.messageType, messageTypeCode('OFFER')),
      rawOption(OPTION.serverId, ip(server)),
    ];
    const message = dhcpMessageOf({ operation: 'reply', transaction: 1, clientMac: to, options });
    const ends = { from: ip(server), fromPort: 67, to: LIMITED_BROADCAST, toPort: 68 };
    this.engine.frame(dhcpFrame(mac('02:00:5e:00:53:66'), ends, message));
  }

  /** Somebody says over ARP that it has an address. */
  has(who: MacAddress, address: string): void {
    const said = { senderMac: who, senderAddress: ip(address), targetMac: ZERO_MAC } as const;
    const packet = { operation: 'request', ...said, targetAddress: ip(address) } as const;
    this.engine.frame(arpFrame(who, BROADCAST_MAC, packet));
  }

  /** Somebody answers our question for an address. */
  answers(who: MacAddress, address: string): void {
    const said = { senderMac: who, senderAddress: ip(address), targetMac: LAPTOP } as const;
    const packet = { operation: 'reply', ...said, targetAddress: UNSPECIFIED } as const;
    this.engine.frame(arpFrame(who, LAPTOP, packet));
  }

  /** What was sent since the last look: `OFFER 10.77.0.85`, `probe 10.77.0.85`, `ask …`. */
  spoken(): readonly string[] {
    return this.sent.splice(0).map((bytes) => {
      const frame = dissect(bytes);
      if (frame.kind === 'dhcp')
        return `${kindOfMessage(frame.dhcp)} ${formatIpv4(frame.dhcp.yourAddress)}`;
      if (frame.kind !== 'arp') return frame.kind;
      const { senderAddress, targetAddress } = frame.arp;
      const about = formatIpv4(targetAddress);
      if (senderAddress === UNSPECIFIED) return `probe ${about}`;
      return senderAddress === targetAddress ? `announce ${about}` : `ask ${about}`;
    });
  }

  replies = (): readonly string[] =>
    this.spoken().filter((one) => /^(OFFER|ACK|NAK|BootP)/.test(one));

  kinds = (): readonly string[] => this.events.map((event) => event.kind);

  notices = () => this.engine.status().notices.map(({ code, facts }) => ({ code, ...facts }));

  captured = (): readonly Uint8Array[] => capturedIn(this.folder).map((record) => record.frame);
}
