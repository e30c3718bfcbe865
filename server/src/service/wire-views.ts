import { type HeardClient, portText } from '@ipsonomo/core/answering';
import { adapterOf } from '@ipsonomo/core/api';
import type {
  DrillView,
  FieldView,
  HeardView,
  PresentView,
  SocketView,
  StationView,
  TwinView,
} from '@ipsonomo/core/api';
import { formatIpv4, formatMac, UNSPECIFIED } from '@ipsonomo/core/net';
import type { DrillState } from '@ipsonomo/core/plan';
import {
  addressesOf,
  type FieldNotice,
  type FieldStatus,
  type FoundStation,
  type Sighting,
  type SocketStatus,
  stays,
} from '@ipsonomo/wire';

// What the wire says, as pages are told.

export const heardView = (client: HeardClient): HeardView => ({
  mac: formatMac(client.mac),
  protocol: client.traits.protocol,
  message: client.message,
  hostName: client.traits.hostName ?? null,
  vendorClass: client.traits.vendorClass ?? null,
  clientId: client.traits.clientId ?? null,
  address: client.address === undefined ? null : formatIpv4(client.address),
  port: client.port ?? null,
  count: client.count,
  firstAt: client.firstAt,
  lastAt: client.lastAt,
  changesNumber: client.changesNumber,
  twins: client.twins
    ? { differs: client.twins, voices: client.voices.slice(0, 2).map(twinView) }
    : null,
});

export const presentView = ({ mac, address, lastAt }: Sighting): PresentView => ({
  ...{ mac: formatMac(mac), address: formatIpv4(address), lastAt },
});

export const stationView = ({ station, firstAt, lastAt }: FoundStation): StationView => {
  const { mac, name, type, vendor, device, address } = station;
  const has = address !== undefined && address.address !== UNSPECIFIED;
  return {
    ...{ mac: formatMac(mac), name: name ?? null, type: type ?? null },
    ...{ vendor: vendor ?? null, device: device ?? null },
    address: has ? formatIpv4(address.address) : null,
    isInConflict: address?.state === 'conflict',
    ...{ firstAt, lastAt },
  };
};

const twinView = ({
  traits,
  port,
  transactions,
  lastAt,
}: HeardClient['voices'][number]): TwinView => ({
  port: port ? portText(port) : null,
  hostName: traits.hostName ?? null,
  clientId: traits.clientId ?? null,
  vendorClass: traits.vendorClass ?? null,
  parameters: traits.parameters ?? null,
  transaction: (transactions[0] ?? 0).toString(16).padStart(8, '0'),
  lastAt,
});

function ownAddresses(source: string | undefined): readonly string[] {
  const adapter = adapterOf(source);
  return adapter === undefined ? [] : addressesOf(adapter).filter((one) => one.includes('.'));
}

const socketView = ({ neighbour, bridge, heardAt, ...rest }: SocketStatus): SocketView => ({
  ...rest,
  heardAt: heardAt ?? null,
  neighbour: neighbour
    ? {
        ...neighbour,
        mac: formatMac(neighbour.mac),
        vlan: neighbour.vlan ?? null,
        address: neighbour.address ?? null,
      }
    : null,
  bridge: bridge ? { ...bridge, mac: formatMac(bridge.mac) } : null,
});

const drillView = ({ phase, onAt, endedAt, rows }: DrillState): DrillView | null =>
  phase === 'none'
    ? null
    : {
        ...{ phase, onAt: onAt ?? null, endedAt: endedAt ?? null },
        rows: rows.map(({ mac, firstAt, asked, answered, address }) => ({
          ...{ mac: formatMac(mac), firstAt, asked: asked ?? null },
          answered: answered
            ? { at: answered.at, by: formatIpv4(answered.by), gave: formatIpv4(answered.gave) }
            : null,
          address: address ? { ...address, value: formatIpv4(address.value) } : null,
        })),
      };

/** @param own what the server itself has to say of the wire */
export const fieldView = (
  jobId: string,
  status: FieldStatus,
  own: readonly FieldNotice[],
  now: number,
): FieldView => ({
  source: status.source ?? null,
  link: status.link,
  jobId,
  runId: status.runId ?? null,
  socket: socketView(status.socket),
  voices: status.voices.map((voice) => ({ ...voice, address: formatIpv4(voice.address) })),
  ownAddresses: ownAddresses(status.source),
  answeringUntil: status.answeringUntil ?? null,
  answers: status.answers,
  drill: drillView(status.drill),
  proof: status.proof ?? null,
  tasks: status.tasks.map((task) => ({ ...task, interfaceId: task.interfaceId ?? null })),
  counters: status.counters,
  notices: [...own, ...status.notices].map((one) => ({ ...one, stays: stays(one) })),
  now,
});
