import { compareKnown, type KnownEntry, type KnownFinding } from '../known';
import type { Plan } from '../plan';
import { emptyStation, namesOf, type HeardStation } from './station';

/** A station, and what each of its addresses comes to beside the plan. */
export interface StationFinding extends KnownFinding {
  readonly station: HeardStation;
  /** Its place among the stations, from 0. */
  readonly place: number;
}

/** What somebody else wrote of one, as if it had been heard. */
export const stationOfEntry = ({ mac, address, name }: KnownEntry): HeardStation => ({
  ...emptyStation(mac),
  addresses: address === undefined ? [] : [address],
  hostName: name,
});

/** R-KNOWN-AGAINST, for what was heard: each address of each station, and those that have none by their MAC and name. */
export function stationsAgainst(
  plan: Plan,
  stations: readonly HeardStation[],
): readonly StationFinding[] {
  const entries = stations.flatMap((station, place) =>
    (station.addresses.length === 0 ? [undefined] : station.addresses).map((address) => ({
      ...{ station, place },
      entry: { line: place + 1, address, mac: station.mac, name: namesOf(station)[0] ?? '' },
    })),
  );
  const findings = compareKnown(
    plan,
    entries.map(({ entry }) => entry),
  );
  return entries.flatMap(({ station, place }, at) => {
    const finding = findings[at];
    return finding ? [{ ...finding, station, place }] : [];
  });
}

/** Stations of which the plan knows nothing at all. */
export function strangersIn(findings: readonly StationFinding[]): readonly HeardStation[] {
  const known = new Set(
    findings.filter(({ verdict }) => verdict !== 'stranger').map(({ place }) => place),
  );
  const strangers = new Map(
    findings.filter(({ place }) => !known.has(place)).map(({ place, station }) => [place, station]),
  );
  return [...strangers.values()];
}
