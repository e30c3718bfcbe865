import type { Ipv4, Prefix, PrefixLength } from '../net';

/** A connection of a host to one broadcast domain, with its own idea of mask and gateway. */
export interface RoutePort {
  readonly id: string;
  /** The broadcast domain it is in: who shares it hears its ARP. */
  readonly link: string;
  readonly address: Ipv4;
  readonly length: PrefixLength;
  readonly gateway: Ipv4 | undefined;
}

/** Addresses that are other addresses on the other side of a router. */
export type Translation =
  /** A whole block, host for host. */
  | { readonly kind: 'one-to-one'; readonly inside: Prefix; readonly outside: Prefix }
  /** Everything inside goes out as one address. */
  | { readonly kind: 'many-to-one'; readonly inside: Prefix; readonly outside: Ipv4 };

/** Anything with an address: a device, a router, a translating router, a controller with its rack. */
export interface RouteHost {
  readonly id: string;
  readonly title: string;
  readonly ports: readonly RoutePort[];
  /** Static routes, the first of equals wins. */
  readonly routes: readonly { readonly to: Prefix; readonly via: Ipv4 }[];
  /** It passes on packets that are not for it. */
  readonly forwards: boolean;
  /** Its network modules share a rack, which passes on the automation protocol and no IP. */
  readonly isRack: boolean;
  /** It answers ARP for whom it reaches through another of its ports (RFC 1027). */
  readonly answersForOthers: boolean;
  readonly translations: readonly Translation[];
}

/** Every host of a site, and by their links who is connected with whom. */
export interface RouteNet {
  readonly hosts: readonly RouteHost[];
}

/** A host of which only what is special is said. */
export const toRouteHost = (
  fields: Partial<RouteHost> & Pick<RouteHost, 'id' | 'title' | 'ports'>,
): RouteHost => ({
  routes: [],
  forwards: false,
  isRack: false,
  answersForOthers: false,
  translations: [],
  ...fields,
});
