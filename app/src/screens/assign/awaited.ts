import {
  findDevice,
  findKind,
  formatMac,
  offersFor,
  parseIpv4,
  parseMac,
  STAGES,
  type DeviceInfo,
  type HeardView,
  type InterfaceView,
  type JobView,
  type OfferClient,
  type OfferReason,
  type Plan,
} from '@ipsonomo/core';

/** A planned interface that is not pinned yet, and which heard clients it may be. */
export interface Awaited {
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
  readonly offers: readonly HeardOffer[];
}

export interface HeardOffer {
  readonly heard: HeardView;
  readonly reasons: readonly OfferReason[];
}

const clientOf = (heard: HeardView): OfferClient | undefined => {
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
};

/** The clients whose MAC is bound to nothing. */
export function strangersOf(job: JobView, heard: readonly HeardView[]): readonly HeardView[] {
  const bound = new Set(job.devices.flatMap((one) => one.interfaces.map((at) => at.mac)));
  return heard.filter((client) => !bound.has(client.mac)).sort((a, b) => b.lastAt - a.lastAt);
}

/** What one interface is offered: its own MAC once bound, else every unbound client it may be. */
export function offersOf(
  job: JobView,
  plan: Plan,
  device: DeviceInfo,
  at: InterfaceView,
  heard: readonly HeardView[],
): readonly HeardOffer[] {
  const open = at.mac === null ? strangersOf(job, heard) : heard;
  const clients = open.flatMap((client) => clientOf(client) ?? []);
  const planned = findDevice(plan, device.id);
  const own = planned?.interfaces.find((one) => one.id === at.id);
  if (!planned || !own) return [];
  return offersFor(planned, own, findKind(plan, device.kindId), clients).flatMap(
    ({ mac, reasons }) => {
      const client = open.find((one) => one.mac === formatMac(mac));
      return client ? [{ heard: client, reasons }] : [];
    },
  );
}

/** Under way: what was lent to it is due back, it has its address for now, or it is bound. */
const underWay = ({ at }: Awaited, now: number): number =>
  at.loan && now >= at.loan.until ? 3 : at.stage === 'given' ? 2 : at.mac === null ? 0 : 1;

/**
 * The calls that are left: what is under way first, since it is nearest to done, then in the order of
 * the round, then what that does not know yet.
 * @param round ids of interfaces
 * @param now by the clock of the server
 */
export function awaitedOf(
  job: JobView,
  plan: Plan,
  heard: readonly HeardView[],
  round: readonly string[],
  now: number,
): readonly Awaited[] {
  const places = new Map(round.map((id, at) => [id, at]));
  const place = ({ at }: Awaited) => places.get(at.id) ?? round.length;
  return job.devices
    .flatMap((device) => device.interfaces.map((at) => ({ device, at })))
    .filter(({ at }) => STAGES.indexOf(at.stage) < STAGES.indexOf('pinned'))
    .map(({ device, at }) => ({ device, at, offers: offersOf(job, plan, device, at, heard) }))
    .sort((a, b) => underWay(b, now) - underWay(a, now) || place(a) - place(b));
}

const REASON_WORDS: Readonly<Record<OfferReason, string>> = {
  mac: 'its MAC',
  name: 'asks by its name',
  'vendor-class': 'asks as its kind does',
  kind: 'is of its kind',
  address: 'asks for its address',
  protocol: 'asks in its way',
};

export const reasonWords = (reasons: readonly OfferReason[]): string =>
  reasons.map((reason) => REASON_WORDS[reason]).join(', ');
