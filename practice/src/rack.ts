import type { HostAddress } from '@ipsonomo/core/host';
import { formatIpv4 } from '@ipsonomo/core/net';
import {
  CIP_SERVICE,
  encodeWith,
  identityObject,
  UNCONNECTED_SEND,
  type CipReply,
  type CipRequest,
  type PortSegment,
  type UnconnectedSend,
} from '@ipsonomo/core/wire';

/** One module in a rack. */
export interface RackModule {
  readonly slot: number;
  readonly title: string;
  /** Where its own socket is plugged in, and its address there; none where it has no network. */
  readonly network?: { readonly segment: string; readonly at: HostAddress };
}

/** A device as a rack sees it through its network modules. */
export interface RackNeighbour {
  readonly rack: readonly RackModule[];
  answer(request: CipRequest): CipReply;
}

/** Who has an address on a segment and is awake. */
export type FindNeighbour = (segment: string, address: string) => RackNeighbour | undefined;

/** Extended codes of a connection that fails (CIP Vol. 1, 3-5.6; from memory). */
const EXTENDED = { timedOut: 0x0204, noPort: 0x0311, noLink: 0x0312 } as const;
const BACKPLANE = 1;
const NETWORK = 2;

const refuse = (extended: number, data: Uint8Array = new Uint8Array(0)): CipReply => ({
  ...{ service: UNCONNECTED_SEND, status: 1, additional: [extended], data },
});

type Place = { readonly rack: readonly RackModule[]; readonly module: RackModule | undefined };

/**
 * Passes a request on along its route path: over the backplane to a slot, and from a network module to an address on its
 * segment. A slot without a module, a port it does not have and a device that is silent are refused as a real one does.
 */
export function forwardAlong(
  rack: readonly RackModule[],
  { request, route }: UnconnectedSend,
  find: FindNeighbour,
): CipReply {
  let place: Place = { rack, module: undefined };
  let reached: RackNeighbour | undefined;
  for (const [at, segment] of route.entries()) {
    const next = step(place, segment, find);
    // How many words of the path were left tells where it broke.
    if (typeof next === 'number') return refuse(next, Uint8Array.of(route.length - at));
    ({ place, reached } = next);
  }
  if (reached) return reached.answer(request);
  return place.module ? moduleAnswer(place.module, request) : refuse(EXTENDED.noLink);
}

function step(
  { rack, module }: Place,
  { port, link }: PortSegment,
  find: FindNeighbour,
): { readonly place: Place; readonly reached: RackNeighbour | undefined } | number {
  if (port === BACKPLANE) {
    const next = typeof link === 'number' ? rack.find(({ slot }) => slot === link) : undefined;
    return next ? { place: { rack, module: next }, reached: undefined } : EXTENDED.noLink;
  }
  if (port !== NETWORK || !module?.network) return EXTENDED.noPort;
  const neighbour = find(module.network.segment, String(link));
  if (!neighbour) return EXTENDED.timedOut;
  return { place: { rack: neighbour.rack, module: undefined }, reached: neighbour };
}

/** A module answers for itself: who it is, and nothing else. */
function moduleAnswer({ title, slot, network }: RackModule, { service }: CipRequest): CipReply {
  if (service !== CIP_SERVICE.getAttributesAll)
    return { service, status: 0x08, additional: [], data: new Uint8Array(0) };
  const name = network ? `${title} ${formatIpv4(network.at.address)}` : title;
  const said = { vendor: 65_207, type: 12, product: 300 + slot, revision: [1, 1] as const };
  const data = encodeWith(identityObject, {
    ...said,
    status: 0x30,
    serial: 0x7a00_0000 + slot,
    name,
  });
  return { service, status: 0, additional: [], data };
}
