import { formatIpv4, toIpv4, toPrefixLength, type Ipv4 } from '@ipsonomo/core/net';
import type { FieldPlan, FieldSubnet } from '../../protocol';
import type { Unit } from '../unit';

/** What a device that left its maker, or came from another plant, has around its address. */
const USUAL_LENGTH = toPrefixLength(24);
/** Last numbers that Ipsonomo speaks from there, once they were found free. */
const USUAL_VOICES = [247, 246, 243, 242];

/** The subnets of the plan, and those a conversation needs besides: around a factory address, or a strange one. */
export class Subnets implements Unit {
  private planned: readonly FieldSubnet[] = [];
  private readonly besides = new Map<string, FieldSubnet>();

  plan({ subnets }: Pick<FieldPlan, 'subnets'>): void {
    this.planned = subnets;
  }

  get ofPlan(): readonly FieldSubnet[] {
    return this.planned;
  }

  get all(): readonly FieldSubnet[] {
    return [...this.planned, ...this.besides.values()];
  }

  find(id: string): FieldSubnet | undefined {
    return this.planned.find((one) => one.id === id) ?? this.besides.get(id);
  }

  /** The planned subnet an address lies in, or the /24 around it. */
  around(address: Ipv4): FieldSubnet {
    const planned = this.planned.find(
      ({ network, length }) => ((address ^ network) >>> 0) / 2 ** (32 - length) < 1,
    );
    if (planned) return planned;
    const network = toIpv4(address - (address % 256));
    const id = `around ${formatIpv4(network)}`;
    const known = this.besides.get(id);
    if (known) return known;
    const voices = USUAL_VOICES.map((last) => toIpv4(network + last));
    const besides: FieldSubnet = {
      ...{ id, name: `${formatIpv4(network)}/24`, network, length: USUAL_LENGTH },
      ...{ gateway: undefined, voices: voices.filter((one) => one !== address), servers: [] },
    };
    this.besides.set(id, besides);
    return besides;
  }
}
