import { pause } from '@ipsonomo/core/clock';
import { formatIpv4, type Ipv4 } from '@ipsonomo/core/net';
import type { Found, PlannedProof, Said, Service } from '@ipsonomo/core/proof';
import { ENIP_PORT, MODBUS_PORT, RECORD_PORT } from '@ipsonomo/core/wire';
import type { TcpFailure, TcpStream } from '../../carriers/carrier';
import { voiceIn, type TalkEvents } from '../talk/patience';
import { askIdentity, askModbusIdentity, askTitle, saidOverEnip } from './talk';
import { askAssemblies, askNetwork, askSlots } from './talk-cip';
import { askStation } from './talk-station';

/** What came of talking to whoever is at one address. */
export type Interview = Pick<
  Found,
  'said' | 'page' | 'network' | 'services' | 'modules' | 'assemblies'
>;

export const NOTHING_SAID: Interview = {
  ...{ said: undefined, page: undefined, network: undefined, services: [] },
  ...{ modules: undefined, assemblies: [] },
};

/** What there is to talk about. */
export type Topics = Pick<PlannedProof, 'services' | 'station' | 'assemblies' | 'modules'>;

const TIMEOUT = 2000;
/**
 * R-LIMITS: one conversation after the other, and so long from one to the next: opened, asked, answered and closed it
 * takes seven packets of ours, so ten a second are never reached.
 */
const EACH = 1000;
const WEB_PORTS: readonly number[] = [80, 8080];

/** One conversation. All but the first two go on only with somebody who said over EtherNet/IP who it is. */
type Step =
  | { readonly kind: 'records' }
  | { readonly kind: 'service'; readonly service: Service }
  | { readonly kind: 'network' | 'assemblies' | 'slots' };

type Opened = 'open' | TcpFailure;
type Told = Partial<Interview>;
interface Way {
  readonly subnetId: string;
  readonly from: Ipv4;
  readonly to: Ipv4;
}

/** The conversations that these topics take, in their order. */
export const stepsOf = (topics: Topics): readonly Step[] => [
  ...(topics.station ? [{ kind: 'records' } as const] : []),
  ...topics.services.flatMap((service): readonly Step[] => [
    { kind: 'service', service },
    ...(service.port === ENIP_PORT ? afterEnip(topics) : []),
  ]),
];

const afterEnip = ({ assemblies, modules, station }: Topics): readonly Step[] => [
  { kind: 'network' },
  ...(assemblies.length > 0 ? [{ kind: 'assemblies' } as const] : []),
  ...(modules.length > 0 && !station ? [{ kind: 'slots' } as const] : []),
];

/** What we send in one conversation, on the average. */
export function packetsOf({ kind }: Step, { assemblies, modules }: Topics): number {
  const opened = 8;
  if (kind === 'records') return 3;
  if (kind === 'assemblies') return opened + 4 * assemblies.length;
  return kind === 'slots' ? opened + 2 * modules.length : opened;
}

/** Talks to devices over the services they have; nothing is changed in any of them. */
export class Interviews {
  private readonly streams = new Set<TcpStream>();
  private generation = 0;

  constructor(
    private readonly events: Pick<TalkEvents, 'clock' | 'needVoice' | 'voice' | 'open' | 'ask'>,
  ) {}

  /** Ends every conversation at once. */
  clear(): void {
    this.generation += 1;
    for (const stream of this.streams) stream.close();
    this.streams.clear();
  }

  /** Undefined where somebody fell silent meanwhile. */
  async ask(subnetId: string, to: Ipv4, topics: Topics): Promise<Interview | undefined> {
    const { generation } = this;
    let interview = NOTHING_SAID;
    let quiet = Promise.resolve();
    for (const step of stepsOf(topics)) {
      const isFirst = step.kind === 'records' || step.kind === 'service';
      // Who did not say who it is says nothing else either.
      if (!isFirst && interview.said?.by !== 'EtherNet/IP') continue;
      await quiet;
      const from = await voiceIn(this.events, subnetId);
      if (generation !== this.generation) return undefined;
      if (from === undefined) break;
      const pausing = pause(this.events.clock, EACH);
      const told = await this.take(step, { subnetId, from, to }, topics);
      if (generation !== this.generation) return undefined;
      // One that takes its time has sent its last packets just now.
      quiet =
        step.kind === 'assemblies' || step.kind === 'slots'
          ? pause(this.events.clock, EACH)
          : pausing;
      interview = {
        ...{ ...interview, ...told },
        services: [...interview.services, ...(told.services ?? [])],
      };
    }
    return generation === this.generation ? interview : undefined;
  }

  private async take(step: Step, way: Way, topics: Topics): Promise<Told> {
    switch (step.kind) {
      case 'records': {
        const question = { ...way, port: RECORD_PORT, timeout: TIMEOUT };
        const ask = (data: Uint8Array) => this.events.ask(way.subnetId, { ...question, data });
        const { station } = topics;
        return station ? askStation(ask, station) : {};
      }
      case 'service':
        return this.serve(step.service, way);
      case 'network':
        return this.tell(way, async (stream) => ({ network: await askNetwork(stream) }));
      case 'assemblies':
        return this.tell(way, async (stream) => ({
          assemblies: await askAssemblies(stream, topics.assemblies),
        }));
      case 'slots':
        return this.tell(way, async (stream) => ({
          modules: await askSlots(
            stream,
            topics.modules.map(({ slot }) => slot),
          ),
        }));
    }
  }

  private async serve(service: Service, way: Way): Promise<Told> {
    let told: Told = {};
    const state = await this.during({ ...way, port: service.port }, async (stream) => {
      told = await talk(stream, service.port, way.to);
    });
    return state === 'no-right' ? {} : { ...told, services: [{ ...service, state }] };
  }

  private async tell(way: Way, act: (stream: TcpStream) => Promise<Told>): Promise<Told> {
    let told: Told = {};
    await this.during({ ...way, port: ENIP_PORT }, async (stream) => {
      told = await act(stream);
    });
    return told;
  }

  private async during(
    { subnetId, ...request }: Way & { readonly port: number },
    act: (stream: TcpStream) => Promise<void>,
  ): Promise<Opened> {
    const stream = await this.events.open(subnetId, { ...request, timeout: TIMEOUT });
    if (typeof stream === 'string') return stream;
    this.streams.add(stream);
    try {
      await act(stream);
    } finally {
      this.streams.delete(stream);
      stream.close();
    }
    return 'open';
  }
}

/** What a service tells; one that is not known only shows that it is there. */
async function talk(stream: TcpStream, port: number, to: Ipv4): Promise<Told> {
  if (port === ENIP_PORT) {
    const identity = await askIdentity(stream);
    return saying(identity && saidOverEnip(identity));
  }
  if (port === MODBUS_PORT) return saying(await askModbusIdentity(stream));
  if (!WEB_PORTS.includes(port)) return {};
  const page = await askTitle(stream, formatIpv4(to));
  return page === '' ? {} : { page };
}

/** What was said before stays where nothing is said now. */
const saying = (said: Said | undefined): Told => (said ? { said } : {});
