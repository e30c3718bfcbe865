import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { Dissected } from '@ipsonomo/core/wire';
import { FieldRefusal, type FieldPlan, type FieldSubnet, type FieldTarget } from '../../protocol';
import type { Unit } from '../unit';
import type { Subnets } from './subnets';

/** What is asked of all of them at every frame. */
interface Index {
  readonly macs: ReadonlySet<MacAddress>;
  readonly factory: ReadonlySet<Ipv4>;
}

/** The interfaces of the plan, by their ids. */
export class Targets implements Unit {
  private readonly all = new Map<string, FieldTarget>();
  private index: Index | undefined;

  /** @param seenAt the address a MAC was seen with in this run */
  constructor(private readonly seenAt: (mac: MacAddress) => Ipv4 | undefined) {}

  plan({ targets }: Pick<FieldPlan, 'targets'>): void {
    this.all.clear();
    this.index = undefined;
    for (const target of targets) this.learn(target);
  }

  learn(target: FieldTarget): void {
    this.all.set(target.interfaceId, target);
    this.index = undefined;
  }

  /** @throws FieldRefusal `field.unknownTarget` */
  of(interfaceId: string): FieldTarget {
    const target = this.all.get(interfaceId);
    if (!target) throw FieldRefusal.of('field.unknownTarget', { interfaceId });
    return target;
  }

  /** The MACs that belong to interfaces of the plan. */
  get macs(): ReadonlySet<MacAddress> {
    return this.indexed.macs;
  }

  /** Whether one of them speaks in a frame: it is then kept whole, whatever others say meanwhile. */
  areIn(frame: Dissected): boolean {
    const { macs } = this.indexed;
    return (
      macs.has(frame.ethernet.from) || (frame.kind === 'dhcp' && macs.has(frame.dhcp.clientMac))
    );
  }

  isFactory(address: Ipv4): boolean {
    return this.indexed.factory.has(address);
  }

  private get indexed(): Index {
    if (this.index) return this.index;
    const all = [...this.all.values()];
    return (this.index = {
      macs: new Set(all.flatMap(({ mac }) => mac ?? [])),
      factory: new Set(all.flatMap(({ factory }) => factory ?? [])),
    });
  }

  /** The subnets of the plan, and those its devices are in as they left their makers. */
  subnets(known: Subnets): readonly FieldSubnet[] {
    const factory = [...this.indexed.factory].map((at) => known.around(at));
    return [...new Set([...known.ofPlan, ...factory])];
  }

  /** Where a device is: where it was seen, else where it is by its stage or as it left its maker. */
  whereIs({ mac, holds, address, factory }: FieldTarget): Ipv4 | undefined {
    const seen = mac === undefined ? undefined : this.seenAt(mac);
    return seen ?? (holds ? address : factory);
  }

  /** Where it was before it is where it is planned: what is there has left from where such devices come. */
  whereWas(target: FieldTarget): Ipv4 | undefined {
    const at = this.whereIs(target);
    return at === target.address ? target.factory : at;
  }
}
