import type { HeardClient } from '@ipsonomo/core/answering';
import { formatIpv4, formatMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import type { Kind } from '@ipsonomo/core/plan';
import type { ProofState, Stranger } from '@ipsonomo/core/proof';
import type { FieldSubnet, FieldTarget, FieldTask, Sighting } from '../../protocol';
import type { Unit } from '../unit';
import type { Checks } from './checks';
import type { Interviews, Topics } from './interviews';
import { MOST_PER_SECOND, type Sweep } from './sweep';

/** What is to be proven. */
export interface ProofOrder {
  readonly proofId: string;
  readonly person: string;
  readonly targets: readonly FieldTarget[];
  /** Where strangers are looked for. */
  readonly subnets: readonly FieldSubnet[];
  /** Packets a second in all. */
  readonly perSecond: number;
}

export interface ProofEvents {
  readonly mac: MacAddress;
  /** Everybody who searches over layer 2; resolves when the last answer may have come. */
  search(): Promise<void>;
  present(): readonly Sighting[];
  /** MACs that belong to interfaces of the plan. */
  known(): ReadonlySet<MacAddress>;
  /** Who was heard asking for an address. */
  clients(): readonly HeardClient[];
  /** What somebody was heard to be called. */
  namesOf(mac: MacAddress): readonly string[];
  /** Maker and device as it told them over layer 2. */
  stationOf(mac: MacAddress): Kind['station'];
  around(address: Ipv4): FieldSubnet;
  hasLink(): boolean;
  changed(): void;
}

/** A stranger is asked for these, and for nothing else (common practice, no source). */
const USUAL: Topics = {
  services: [
    { port: 80, name: 'web page' },
    { port: 44_818, name: 'EtherNet/IP' },
    { port: 502, name: 'Modbus/TCP' },
  ],
  ...{ station: undefined, assemblies: [], modules: [] },
};
const MOST_STRANGERS = 64;
const LOOK_EVERY = 100;

interface Run extends ProofOrder {
  readonly phase: 'sweep' | 'ask' | 'strangers';
  /** The search over layer 2 is over. */
  readonly searched: boolean;
}

/**
 * One run of a proof: everybody is looked for, then every planned device is asked, then what nobody planned. Stopped, it
 * leaves what it has; another run goes on with the rest.
 */
export class ProofRun implements Unit {
  private current: Run | undefined;
  private last: ProofState | undefined;
  private lookAt = 0;

  constructor(
    private readonly events: ProofEvents,
    private readonly sweep: Sweep,
    private readonly checks: Checks,
    private readonly interviews: Interviews,
  ) {}

  start(order: ProofOrder, now: number): void {
    this.clear();
    const perSecond = Math.min(MOST_PER_SECOND, order.perSecond);
    const run: Run = { ...order, perSecond, phase: 'sweep', searched: false };
    this.current = run;
    this.last = undefined;
    if (order.subnets.length > 0) this.sweep.start(order.subnets, now, perSecond);
    const searched = () => {
      if (this.current?.proofId === order.proofId) this.go({ ...this.current, searched: true });
    };
    void this.events.search().then(searched);
    this.events.changed();
  }

  get state(): ProofState | undefined {
    const run = this.current;
    if (!run) return this.last;
    const left = this.leftOf(run);
    return this.stateOf(run, { phase: run.phase, left, how: undefined, strangers: [] });
  }

  /** Somebody stopped it, fell silent, or the cable is out. */
  clear(): void {
    const run = this.current;
    if (!run) return;
    this.end(run, this.leftOf(run), this.events.hasLink() ? 'stopped' : 'no-link', []);
    this.sweep.clear();
    this.checks.clear();
  }

  tasks(): readonly FieldTask[] {
    return this.current
      ? [{ kind: 'prove', interfaceId: undefined, phase: this.current.phase }]
      : [];
  }

  nextAt(): number {
    return this.current ? this.lookAt : Infinity;
  }

  run(now: number): void {
    const run = this.current;
    if (!run || now < this.lookAt) return;
    this.lookAt = now + LOOK_EVERY;
    if (run.phase === 'sweep' && run.searched && this.sweep.isOver) {
      this.go({ ...run, phase: 'ask' });
      this.checks.start(run.targets, run, now, run.perSecond);
    } else if (run.phase === 'ask' && this.checks.left(run.proofId) === 0) {
      this.go({ ...run, phase: 'strangers' });
      void this.meetStrangers(run);
    }
  }

  private leftOf({ phase, targets, proofId }: Run): number {
    return phase === 'sweep' ? targets.length : this.checks.left(proofId);
  }

  private go(run: Run): void {
    this.current = run;
    this.events.changed();
  }

  private async meetStrangers(run: Run): Promise<void> {
    const places = this.strangers();
    const strangers = await Promise.all(
      places.map(async ([mac, addresses]): Promise<Stranger> => {
        const [address] = addresses;
        const told =
          address === undefined
            ? undefined
            : await this.interviews.ask(this.events.around(address).id, address, {
                ...USUAL,
                station: this.events.stationOf(mac),
              });
        return {
          ...{ mac: formatMac(mac), addresses: addresses.map(formatIpv4) },
          names: this.events.namesOf(mac),
          services: (told?.services ?? []).filter(({ state }) => state === 'open'),
          ...{ said: told?.said ?? null, page: told?.page ?? null },
          asks: this.askedBy(mac),
        };
      }),
    );
    if (this.current?.proofId === run.proofId) this.end(run, 0, 'done', strangers);
    this.events.changed();
  }

  private askedBy(mac: MacAddress): Stranger['asks'] {
    const client = this.events.clients().find((one) => one.mac === mac);
    if (!client) return null;
    const { protocol, vendorClass = '' } = client.traits;
    return { by: protocol, vendorClass };
  }

  /** Whoever has an address, or was heard asking for one, and is nobody of the plan. */
  private strangers(): readonly (readonly [MacAddress, readonly Ipv4[]])[] {
    const known = this.events.known();
    const byMac = new Map<MacAddress, Ipv4[]>();
    for (const { mac, address } of this.events.present())
      if (mac !== this.events.mac && !known.has(mac))
        byMac.set(mac, [...(byMac.get(mac) ?? []), address]);
    for (const { mac } of this.events.clients())
      if (!known.has(mac) && !byMac.has(mac)) byMac.set(mac, []);
    return [...byMac].slice(0, MOST_STRANGERS);
  }

  private end(
    run: Run,
    left: number,
    how: NonNullable<ProofState['how']>,
    strangers: readonly Stranger[],
  ): void {
    this.current = undefined;
    this.last = this.stateOf(run, { phase: 'ended', left, how, strangers });
  }

  private stateOf(
    { proofId, targets }: Run,
    rest: Pick<ProofState, 'phase' | 'left' | 'how' | 'strangers'>,
  ): ProofState {
    return { proofId, total: targets.length, ...rest };
  }
}
