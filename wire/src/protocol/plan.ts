import type { RelayPort } from '@ipsonomo/core/answering';
import type { Ipv4, MacAddress, PrefixLength } from '@ipsonomo/core/net';
import type { EvidenceKind, Way } from '@ipsonomo/core/plan';
import type { PlannedProof } from '@ipsonomo/core/proof';

// What the wire knows of a plan.

/** One interface of the plan, as far as the wire needs to know it. */
export interface FieldTarget {
  readonly interfaceId: string;
  readonly jobId: string;
  readonly title: string;
  readonly subnetId: string;
  readonly mac: MacAddress | undefined;
  /** By what its requests are known. */
  readonly key:
    | { readonly by: 'mac' }
    /** One character a byte. */
    | { readonly by: 'name'; readonly name: string }
    | { readonly by: 'port'; readonly port: RelayPort | undefined };
  readonly address: Ipv4;
  /** Undefined where it is the planned one; else it is lent until then. */
  readonly lentUntil: number | undefined;
  readonly length: PrefixLength;
  readonly gateway: Ipv4 | undefined;
  readonly hostName: string;
  readonly way: Way;
  /** Its name over layer 2. */
  readonly stationName: string;
  readonly answersPing: boolean;
  /** What has to be seen of its MAC to count as heard: depends on its way. */
  readonly heardBy: EvidenceKind;
  /** From power on to its first request: it cannot be back sooner. */
  readonly bootSeconds: number;
  /** By the evidence so far it has its address. */
  readonly holds: boolean;
  /** Where such a device is as it left its maker. */
  readonly factory: Ipv4 | undefined;
  /** It can be asked who it is (EtherNet/IP). */
  readonly hasIdentity: boolean;
  /** The hardware or firmware its kind stands for; empty where it stands for any. */
  readonly revision: string;
  /** What it has to show to count as proven. */
  readonly proof: Omit<PlannedProof, 'mac' | 'stationName' | 'mask' | 'gateway'>;
  /** The controller that the plan has for it. */
  readonly controller: string;
  /** Where that controller is. */
  readonly controllerAt: readonly Ipv4[];
  /** The TCP port of its web page. */
  readonly page: number | undefined;
}

export interface FieldSubnet {
  readonly id: string;
  readonly name: string;
  readonly network: Ipv4;
  readonly length: PrefixLength;
  readonly gateway: Ipv4 | undefined;
  /** Addresses Ipsonomo may speak from, best first. */
  readonly voices: readonly Ipv4[];
  /** DHCP servers that are meant to be there. */
  readonly servers: readonly Ipv4[];
}

export interface FieldPlan {
  readonly jobId: string;
  readonly targets: readonly FieldTarget[];
  readonly subnets: readonly FieldSubnet[];
}

/** A plan as the wire is told of it. */
export interface PlanNews extends FieldPlan {
  /** False where `targets` holds only what changed since it was told last. */
  readonly isWhole: boolean;
  /** Ids of interfaces that are not in it any more. */
  readonly gone: readonly string[];
}
