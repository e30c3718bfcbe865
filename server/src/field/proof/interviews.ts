import {
  ENIP_PORT,
  formatIpv4,
  MODBUS_PORT,
  type Found,
  type Ipv4,
  type Said,
  type Service,
  type ServiceFound,
} from '@ipsonomo/core';
import type { TcpFailure, TcpStream } from '../carrier';
import { pause, voiceIn, type TalkEvents } from '../patience';
import { askIdentity, askModbusIdentity, askNetwork, askTitle, saidOverEnip } from './talk';

/** What came of talking to whoever is at one address. */
export type Interview = Pick<Found, 'said' | 'page' | 'network' | 'services'>;

export const NOTHING_SAID: Interview = {
  ...{ said: undefined, page: undefined, network: undefined, services: [] },
};

const TCP_TIMEOUT = 2000;
/**
 * R-LIMITS: one conversation after the other, and so long from the beginning of one to that of the next: opened, asked, answered
 * and closed it takes seven packets of ours, so ten a second are never reached.
 */
const EACH = 1000;
const WEB_PORTS: readonly number[] = [80, 8080];

type Opened = 'open' | TcpFailure;

/** Talks to devices over the services they have; nothing is changed in any of them. */
export class Interviews {
  private readonly streams = new Set<TcpStream>();
  private generation = 0;

  constructor(private readonly events: Pick<TalkEvents, 'needVoice' | 'voice' | 'open'>) {}

  /** Ends every conversation at once. */
  clear(): void {
    this.generation += 1;
    for (const stream of this.streams) stream.close();
    this.streams.clear();
  }

  /** Undefined where somebody fell silent meanwhile. */
  async ask(
    subnetId: string,
    to: Ipv4,
    services: readonly Service[],
  ): Promise<Interview | undefined> {
    const { generation } = this;
    let { said, page, network } = NOTHING_SAID;
    const found: ServiceFound[] = [];
    let quiet = Promise.resolve();
    for (const { isSecond, ...service } of conversationsOf(services)) {
      // Who did not say who it is says nothing of its network either.
      if (isSecond && said?.by !== 'EtherNet/IP') continue;
      await quiet;
      const from = await voiceIn(this.events, subnetId);
      if (generation !== this.generation) return undefined;
      if (from === undefined) break;
      quiet = pause(EACH);
      const state = await this.during(
        { subnetId, from, to, port: service.port },
        async (stream) => {
          if (isSecond) {
            network = await askNetwork(stream);
            return;
          }
          const told = await talk(stream, service.port, to);
          said = told.said ?? said;
          page = told.page ?? page;
        },
      );
      if (generation !== this.generation) return undefined;
      if (state !== 'no-right' && !isSecond) found.push({ ...service, state });
    }
    return generation === this.generation ? { said, page, network, services: found } : undefined;
  }

  private async during(
    { subnetId, ...request }: { subnetId: string; from: Ipv4; to: Ipv4; port: number },
    act: (stream: TcpStream) => Promise<void>,
  ): Promise<Opened> {
    const stream = await this.events.open(subnetId, { ...request, timeout: TCP_TIMEOUT });
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

/** EtherNet/IP is spoken twice: who it is, and in a conversation of its own how its network is set. */
export const conversationsOf = (services: readonly Service[]) =>
  services.flatMap((service) => {
    const first = { ...service, isSecond: false };
    return service.port === ENIP_PORT ? [first, { ...service, isSecond: true }] : [first];
  });

/** What a service tells; one that is not known only shows that it is there. */
async function talk(
  stream: TcpStream,
  port: number,
  to: Ipv4,
): Promise<{ readonly said?: Said | undefined; readonly page?: string | undefined }> {
  if (port === ENIP_PORT) {
    const identity = await askIdentity(stream);
    return { said: identity && saidOverEnip(identity) };
  }
  if (port === MODBUS_PORT) return { said: await askModbusIdentity(stream) };
  if (WEB_PORTS.includes(port))
    return { page: (await askTitle(stream, formatIpv4(to))) || undefined };
  return {};
}
