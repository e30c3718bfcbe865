import type { Known, Sign, Countersign } from '../causes';
import { parseIpv4, parseMac, type Ipv4, type MacAddress } from '../net';
import {
  findKind,
  findSubnet,
  stationNameOf,
  type Device,
  type Interface,
  type Plan,
} from '../plan';
import type { EvidenceView, FieldView, HeardView, PresentView, StationView } from './views';

/** What pages are told of the wire and of one device. */
interface ToldOf {
  readonly field: Pick<FieldView, 'link' | 'socket' | 'notices'> | undefined;
  readonly heard: readonly HeardView[];
  readonly stations: readonly StationView[];
  readonly present: readonly PresentView[];
  /** Of this device, newest first. */
  readonly evidence: readonly EvidenceView[];
}

const macOf = (text: string): readonly MacAddress[] => {
  const read = parseMac(text);
  return read.ok ? [read.value] : [];
};
const ipOf = (text: string): readonly Ipv4[] => {
  const read = parseIpv4(text);
  return read.ok ? [read.value] : [];
};

/** What is known of one device, as core reasons about it. @param macText the MAC that counts for it */
export function knownOf(
  plan: Plan,
  { device, at, macText }: { device: Device; at: Interface; macText: string | null },
  { field, heard, stations, present, evidence }: ToldOf,
  { farFails, said }: { farFails: boolean; said: readonly (Sign | Countersign)[] },
): Known {
  const factory = findKind(plan, device.kindId)?.factory;
  return {
    ...{ way: device.way, address: at.address, stationName: stationNameOf(device) },
    mac: macText === null ? undefined : macOf(macText)[0],
    factory: factory?.kind === 'fixed' ? factory.address : undefined,
    hasLink: (field?.link ?? 'up') === 'up',
    // What the stream has not told yet is no sign.
    hasHeard: field === undefined || field.socket.heardAt !== null,
    tags: field?.socket.tags ?? [],
    vlans: {
      socket: field?.socket.neighbour?.vlan ?? undefined,
      planned: findSubnet(plan, at.subnetId)?.vlan,
    },
    notices: field?.notices ?? [],
    present: present.flatMap((one) =>
      macOf(one.mac).flatMap((mac) =>
        ipOf(one.address).map((address) => ({ mac, address, lastAt: one.lastAt })),
      ),
    ),
    clients: heard.flatMap((one) =>
      macOf(one.mac).map((mac) => ({
        ...{ mac, lastAt: one.lastAt, hasTwin: one.twins !== null },
        changesNumber: one.changesNumber,
      })),
    ),
    stations: stations.flatMap((one) =>
      macOf(one.mac).map((mac) => ({
        ...{ mac, name: one.name ?? undefined, lastAt: one.lastAt },
        address: ipOf(one.address ?? '')[0],
      })),
    ),
    ...{ evidence, farFails, said },
  };
}
