import { isAsking } from '@ipsonomo/core';
import type { Checks } from './checks';
import type { Identities } from './identities';
import type { Moves } from './moves';
import type { Pages } from './pages';
import type { Pinning } from './pinning';
import type { PowerWatch } from './power-watch';
import { FieldRefusal, type FieldTarget, type Giving, type RecordEvidence } from './protocol';
import type { Stations } from './stations';
import type { Subnets } from './subnets';
import type { Sweep } from './sweep';
import type { Targets } from './targets';

export interface ActingUnits {
  readonly checks: Checks;
  readonly moves: Moves;
  readonly pages: Pages;
  readonly power: PowerWatch;
  readonly pinning: Pinning;
  readonly layer2: Stations;
  readonly identities: Identities;
  readonly sweep: Sweep;
  readonly targets: Targets;
  readonly subnets: Subnets;
  readonly record: RecordEvidence;
}

/**
 * What a person asks for on the wire while it is listened to; each refuses with `field.unknownTarget` where
 * the plan does not know the interface.
 * @param released gives up addresses that nothing needs any more
 */
export class Acts {
  constructor(
    private readonly units: ActingUnits,
    private readonly clock: () => number,
    private readonly released: () => void,
  ) {}

  check(interfaceIds: readonly string[], person: string): void {
    const targets = interfaceIds.map((id) => this.units.targets.of(id));
    this.units.checks.start(targets, person, this.clock());
  }

  /** Asks for every address of the plan's subnets, and of those such devices come from. */
  sweep(): void {
    const { sweep, targets, subnets } = this.units;
    sweep.start(targets.subnets(subnets), this.clock());
  }

  get stations(): Pick<Stations, 'search' | 'flash'> {
    return this.units.layer2;
  }

  async giveStation(interfaceId: string, giving: Giving, person: string): Promise<void> {
    await this.units.layer2.give(this.units.targets.of(interfaceId), giving, person);
    this.released();
  }

  async resetStation(interfaceId: string, reason: string, person: string): Promise<void> {
    await this.units.layer2.reset(this.units.targets.of(interfaceId), reason, person);
  }

  follow(interfaceId: string, person: string): void {
    this.units.moves.start(this.units.targets.of(interfaceId), person, this.clock());
  }

  async openPage(interfaceId: string, person: string): Promise<void> {
    await this.units.pages.open(this.units.targets.of(interfaceId), person);
  }

  watchPower(interfaceId: string, person: string, evenSo?: string): Promise<void> | undefined {
    const { targets, power, identities } = this.units;
    const target = targets.of(interfaceId);
    // What asks is known by its MAC alone; what comes up by itself shows it then.
    if (target.mac === undefined && isAsking(target.way))
      throw new FieldRefusal('field.unbound', { title: target.title });
    const start = () => power.start(target, person, this.clock());
    if (evenSo === undefined && identities.canAsk(target))
      return identities.refuseInUse(target, person).then(start);
    if (evenSo !== undefined) this.overruled(target, 'power', evenSo, person);
    start();
    return undefined;
  }

  /** Tells the device to keep its address; the outcome becomes evidence. */
  async pin(interfaceId: string, person: string, evenSo?: string): Promise<void> {
    const { targets, pinning, identities } = this.units;
    const target = targets.of(interfaceId);
    if (evenSo === undefined) await identities.refuseInUse(target, person);
    else this.overruled(target, 'keep', evenSo, person);
    await pinning.start(target, person);
    this.released();
  }

  /** A person knows better than the device says: that is kept with who and why. */
  private overruled(target: FieldTarget, act: string, reason: string, person: string): void {
    this.units.record('overruled', target, { act, reason }, { person });
  }
}
