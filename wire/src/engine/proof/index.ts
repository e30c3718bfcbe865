import type { HeardClient } from '@ipsonomo/core/answering';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { TalkEvents } from '../talk/patience';
import type { Present } from '../hearing/present';
import type { FoundStation } from '../../protocol';
import type { Subnets } from '../hearing/subnets';
import type { Targets } from '../hearing/targets';
import { Checks, type CheckEvents } from './checks';
import { Interviews } from './interviews';
import { ProofRun } from './proof-run';
import { Sweep, type SweepEvents } from './sweep';

/** What a proof needs to know of everybody else on the wire. */
export interface Surroundings {
  readonly targets: Targets;
  readonly present: Present;
  readonly subnets: Subnets;
  readonly stations: { readonly list: readonly FoundStation[]; search(): Promise<void> };
  readonly dhcpServer: { readonly clients: readonly HeardClient[] };
}

type ProofWire = Omit<CheckEvents, 'station'> &
  SweepEvents &
  Pick<TalkEvents, 'clock' | 'needVoice' | 'voice' | 'open' | 'ask'> & { hasLink(): boolean };

/** The units of a proof, put together. */
export function proofUnits(
  wire: ProofWire,
  { targets, present, subnets, stations, dhcpServer }: Surroundings,
) {
  const station = (mac: MacAddress) =>
    stations.list.find((one) => one.station.mac === mac)?.station;
  const hostName = (mac: MacAddress) =>
    dhcpServer.clients.find((client) => client.mac === mac)?.traits.hostName;
  const interviews = new Interviews(wire);
  const checks = new Checks({ ...wire, station }, interviews);
  const sweep = new Sweep(wire);
  const proof = new ProofRun(
    {
      ...{ mac: wire.mac, hasLink: wire.hasLink, changed: wire.changed },
      search: () => stations.search(),
      present: () => present.all,
      clients: () => dhcpServer.clients,
      known: () => targets.macs,
      namesOf: (mac) =>
        [...new Set([station(mac)?.name, hostName(mac)])].flatMap((name) => name || []),
      stationOf: (mac) => {
        const { vendor, device } = station(mac) ?? {};
        return vendor === undefined || device === undefined ? undefined : { vendor, device };
      },
      around: (address: Ipv4) => subnets.around(address),
    },
    sweep,
    checks,
    interviews,
  );
  return { checks, sweep, proof };
}
