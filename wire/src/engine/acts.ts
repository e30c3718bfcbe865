import type { MessagePort } from 'node:worker_threads';
import type { Clock } from '@ipsonomo/core/clock';
import type { MacAddress } from '@ipsonomo/core/net';
import { isAsking } from '@ipsonomo/core/plan';
import type { ColdStart } from './cold-start/cold-start';
import type { Identities } from './cip/identities';
import type { Moves } from './moves/moves';
import type { Pages } from './pages/pages';
import type { PathAsking, PathOrder } from './cip/path-asking';
import type { Traces } from './trace/trace';
import type { Pinning } from './pin/pinning';
import type { PowerWatch } from './power-watch/power-watch';
import type { Checks } from './proof/checks';
import type { ProofOrder, ProofRun } from './proof/proof-run';
import { refuseTooWide, type Sweep } from './proof/sweep';
import { FieldRefusal, type FieldTarget, type Giving, type RecordEvidence } from '../protocol';
import type { RegisterAsking, RegisterOrder } from './modbus/register-asking';
import type { Stations } from './dcp/stations';
import type { Subnets } from './hearing/subnets';
import type { Targets } from './hearing/targets';
import type { UseSigns } from './hearing/use-signs';
import type { PingMonitor, VigilOrder } from './ping-monitor/ping-monitor';

/** Something that may stop a machine. */
export interface RiskyAct {
  readonly interfaceId: string;
  readonly person: string;
  /** Why it is done although a controller may use the device; undefined while nobody said so. */
  readonly evenSo?: string | undefined;
}

/** What is to be proven, by the ids of its interfaces. */
export interface Proving extends Pick<ProofOrder, 'proofId' | 'perSecond' | 'person'> {
  readonly interfaceIds: readonly string[];
}

/** A route path by the ids of its ends. */
export interface PathWish extends Pick<PathOrder, 'route' | 'person'> {
  readonly entry: string;
  readonly interfaceId: string;
}

/** A register by the id of its device. */
export interface RegisterWish extends Omit<RegisterOrder, 'target'> {
  readonly interfaceId: string;
}

/** What is to be watched, by the ids of its interfaces. */
export interface Watching extends Omit<VigilOrder, 'targets'> {
  readonly interfaceIds: readonly string[];
}

export interface ActingUnits {
  readonly checks: Checks;
  readonly coldStart: ColdStart;
  readonly traces: Traces;
  readonly moves: Moves;
  readonly pages: Pages;
  readonly power: PowerWatch;
  readonly pinning: Pinning;
  readonly stations: Stations;
  readonly identities: Identities;
  readonly sweep: Sweep;
  readonly proof: ProofRun;
  readonly monitor: PingMonitor;
  readonly paths: PathAsking;
  readonly registers: RegisterAsking;
  readonly signs: UseSigns;
  readonly targets: Targets;
  readonly subnets: Subnets;
  readonly record: RecordEvidence;
  readonly dhcpServer: { liftTwins(mac: MacAddress | undefined): void };
}

/**
 * What a person asks for on the wire while it is listened to; each refuses with `field.unknownTarget` where
 * the plan does not know the interface.
 * @param released gives up addresses that nothing needs any more
 * @param silence ends everything that sends
 */
export class Acts {
  constructor(
    private readonly units: ActingUnits,
    private readonly clock: Clock,
    private readonly released: () => void,
    private readonly silence: () => void,
  ) {}

  check(interfaceIds: readonly string[], person: string): void {
    const targets = interfaceIds.map((id) => this.units.targets.of(id));
    this.units.checks.start(targets, { person, proofId: undefined }, this.clock.now());
  }

  /** R-PROVEN: a run over planned interfaces, and who else is in their subnets. */
  prove({ interfaceIds, ...order }: Proving): void {
    const { targets, subnets, proof } = this.units;
    const asked = interfaceIds.map((id) => targets.of(id));
    const around = new Set(asked.map(({ subnetId }) => subnetId));
    const swept = subnets.ofPlan.filter(({ id }) => around.has(id));
    proof.start({ ...order, targets: asked, subnets: swept }, this.clock.now());
  }

  /** Who is at the end of a route path. */
  async askPath({ entry, interfaceId, route, person }: PathWish): Promise<void> {
    const { targets, paths } = this.units;
    await paths.ask({ entry: targets.of(entry), target: targets.of(interfaceId), route, person });
    this.released();
  }

  /** One register of a device, or of one behind it. */
  async readRegister({ interfaceId, ...order }: RegisterWish): Promise<void> {
    await this.units.registers.ask({ ...order, target: this.units.targets.of(interfaceId) });
    this.released();
  }

  /** R-VIGIL: devices asked in a steady beat. */
  vigil({ interfaceIds, ...order }: Watching): void {
    const targets = interfaceIds.map((id) => this.units.targets.of(id));
    this.units.monitor.start({ ...order, targets }, this.clock.now());
  }

  stopVigil(): void {
    this.units.monitor.clear();
    this.released();
  }

  stopProof(): void {
    this.units.proof.clear();
    this.released();
  }

  /** A cold start is watched: the cabinet is about to be switched off, is on again, or has come back. */
  drill(step: 'begin' | 'on' | 'end', person: string): void {
    const { coldStart } = this.units;
    if (step === 'begin') {
      this.silence();
      coldStart.begin();
    } else if (step === 'on') coldStart.on(this.clock.now());
    else coldStart.end(person, this.clock.now());
  }

  /** The way to a device from an address in a subnet that is on the cable. Refuses with `walk.unknownSubnet`. */
  walkTo(interfaceId: string, subnetId: string, person: string): void {
    const { targets, subnets, traces } = this.units;
    if (!subnets.ofPlan.some(({ id }) => id === subnetId))
      throw FieldRefusal.of('walk.unknownSubnet', { subnetId });
    traces.start(targets.of(interfaceId), subnetId, person, this.clock.now());
  }

  /** Asks for every address of the plan's subnets, and of those such devices come from. */
  sweep(): void {
    const { sweep, targets, subnets } = this.units;
    const asked = targets.subnets(subnets);
    refuseTooWide(asked);
    sweep.start(asked, this.clock.now());
  }

  get stations(): Pick<Stations, 'search' | 'flash'> {
    return this.units.stations;
  }

  async giveStation(act: RiskyAct, giving: Giving): Promise<void> {
    const target = this.units.targets.of(act.interfaceId);
    await this.mayDisturb(target, 'name', act);
    await this.units.stations.give(target, giving, act.person);
    this.released();
  }

  async resetStation(act: RiskyAct, reason: string): Promise<void> {
    const target = this.units.targets.of(act.interfaceId);
    await this.mayDisturb(target, 'reset', act);
    await this.units.stations.reset(target, reason, act.person);
  }

  follow(interfaceId: string, person: string): void {
    this.units.moves.start(this.units.targets.of(interfaceId), person, this.clock.now());
  }

  async openPage(interfaceId: string, person: string): Promise<void> {
    await this.units.pages.open(this.units.targets.of(interfaceId), person);
  }

  /** One connection of a browser to the page that is open. */
  converse(port: MessagePort): Promise<void> {
    return this.units.pages.converse(port);
  }

  /** R-TWINS: who saw the device knows better than who heard it. */
  oneDevice(mac: MacAddress): void {
    this.units.dhcpServer.liftTwins(mac);
  }

  watchPower(act: RiskyAct): Promise<void> | undefined {
    const { targets, power, dhcpServer } = this.units;
    const target = targets.of(act.interfaceId);
    // What asks is known by its MAC alone; what comes up by itself shows it then.
    if (target.mac === undefined && isAsking(target.way))
      throw FieldRefusal.of('field.unbound', { title: target.title });
    const start = () => {
      dhcpServer.liftTwins(target.mac);
      power.start(target, act.person, this.clock.now());
    };
    const asked = this.mayDisturb(target, 'power', act);
    if (asked) return asked.then(start);
    start();
    return undefined;
  }

  /** Tells the device to keep its address; the outcome becomes evidence. */
  async pin(act: RiskyAct): Promise<void> {
    const target = this.units.targets.of(act.interfaceId);
    await this.mayDisturb(target, 'keep', act);
    await this.units.pinning.start(target, act.person);
    this.released();
  }

  /**
   * R-IN-USE: whether a controller uses it, by what was seen and by what it says itself. A person who knows
   * better goes on: that is kept with who and why.
   */
  private mayDisturb(
    target: FieldTarget,
    what: string,
    { evenSo, person }: RiskyAct,
  ): Promise<void> | undefined {
    const { identities, signs, targets, record } = this.units;
    if (evenSo !== undefined) {
      record('overruled', target, { act: what, reason: evenSo }, { person });
      return undefined;
    }
    signs.refuse(target, targets.whereIs(target), this.clock.now());
    return identities.canAsk(target)
      ? identities.refuseInUse(target, person, what === 'keep')
      : undefined;
  }
}
