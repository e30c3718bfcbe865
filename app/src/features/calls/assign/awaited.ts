import type { DeviceInfo, HeardView, InterfaceView, JobView } from '@ipsonomo/core/api';
import { formatMac, parseIpv4, parseMac } from '@ipsonomo/core/net';
import {
  findInterface,
  findKind,
  offersFor,
  oncePer,
  STAGES,
  type OfferClient,
  type OfferReason,
  type Plan,
} from '@ipsonomo/core/plan';
import { ASSIGN_WORDS } from '@ipsonomo/language/screens/assign';

/** A planned interface that is not pinned yet. */
export interface Awaited {
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
}

export interface HeardOffer {
  readonly heard: HeardView;
  readonly reasons: readonly OfferReason[];
}

/** Read once: hundreds are heard, and one of them asks again every second. */
const clientOf = oncePer((heard: HeardView): OfferClient | undefined => {
  const mac = parseMac(heard.mac);
  const address = heard.address === null ? undefined : parseIpv4(heard.address);
  if (!mac.ok) return undefined;
  return {
    mac: mac.value,
    protocol: heard.protocol,
    hostName: heard.hostName ?? undefined,
    vendorClass: heard.vendorClass ?? undefined,
    address: address?.ok ? address.value : undefined,
  };
});

const boundIn = oncePer(
  (job: JobView): ReadonlySet<string | null> =>
    new Set(job.devices.flatMap((one) => one.interfaces.map((at) => at.mac))),
);

/** What was heard, held against a plan: made anew with each piece of news, so that each list is gone through once. */
export class HeardBook {
  /** The clients whose MAC is bound to nothing, the last one first. */
  readonly strangers: readonly HeardView[];
  private readonly byMac: ReadonlyMap<string, HeardView>;
  private readonly unbound: readonly OfferClient[];

  constructor(
    job: JobView,
    private readonly plan: Plan,
    heard: readonly HeardView[],
  ) {
    const bound = boundIn(job);
    this.byMac = new Map(heard.map((one) => [one.mac, one]));
    this.strangers = heard
      .filter((client) => !bound.has(client.mac))
      .sort((a, b) => b.lastAt - a.lastAt);
    this.unbound = this.strangers.flatMap((one) => clientOf(one) ?? []);
  }

  /** What one interface is offered: its own MAC once bound, else every unbound client it may be. */
  offersTo(at: InterfaceView): readonly HeardOffer[] {
    const planned = findInterface(this.plan, at.id);
    if (!planned) return [];
    const kind = findKind(this.plan, planned.device.kindId);
    return offersFor(planned.device, planned.at, kind, this.clientsFor(at)).flatMap(
      ({ mac, reasons }) => {
        const heard = this.byMac.get(formatMac(mac));
        return heard ? [{ heard, reasons }] : [];
      },
    );
  }

  private clientsFor({ mac }: InterfaceView): readonly OfferClient[] {
    if (mac === null) return this.unbound;
    const own = this.byMac.get(mac);
    const client = own && clientOf(own);
    return client ? [client] : [];
  }
}

/** Under way: what was lent to it is due back, it has its address for now, or it is bound. */
const underWay = ({ at }: Awaited, now: number): number =>
  at.loan && now >= at.loan.until ? 3 : at.stage === 'given' ? 2 : at.mac === null ? 0 : 1;

/** When the order of what is awaited changes by itself. */
export const loanEndsOf = (job: JobView): readonly number[] =>
  job.devices.flatMap((one) => one.interfaces.flatMap(({ loan }) => loan?.until ?? []));

/**
 * The calls that are left: what is under way first, since it is nearest to done, then in the order of
 * the round, then what that does not know yet.
 * @param round ids of interfaces
 * @param now by the clock of the server
 */
export function awaitedOf(job: JobView, round: readonly string[], now: number): readonly Awaited[] {
  const places = new Map(round.map((id, at) => [id, at]));
  const open: (Awaited & { readonly rank: number; readonly place: number })[] = [];
  for (const device of job.devices)
    for (const at of device.interfaces)
      if (STAGES.indexOf(at.stage) < PINNED) {
        const place = places.get(at.id) ?? round.length;
        open.push({ device, at, rank: underWay({ device, at }, now), place });
      }
  return open.sort((a, b) => b.rank - a.rank || a.place - b.place);
}

const PINNED = STAGES.indexOf('pinned');

const REASON_WORDS: Readonly<Record<OfferReason, string>> = {
  mac: ASSIGN_WORDS.itsMac,
  name: ASSIGN_WORDS.asksByItsName,
  'vendor-class': ASSIGN_WORDS.asksAsItsKindDoes,
  kind: ASSIGN_WORDS.isOfItsKind,
  address: ASSIGN_WORDS.asksForItsAddress,
  protocol: ASSIGN_WORDS.asksInItsWay,
};

export const reasonWords = (reasons: readonly OfferReason[]): string =>
  reasons.map((reason) => REASON_WORDS[reason]).join(', ');
