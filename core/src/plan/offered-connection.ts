import { changeOf, type Edit } from './edits';
import { docOf, findDoc, type PlanDoc } from './document';
import { endWithBytes, measureEnd } from './connection-sizes';
import type { ConnectionOffer, Kind, PROTOCOLS } from './kind';
import { toDevice, type Connection, type ConnectionEnd, type Device } from './model';

type Protocol = (typeof PROTOCOLS)[number];

/** An end of which nothing is said. */
const EMPTY_END: ConnectionEnd = {
  ...{ inSize: undefined, outSize: undefined, unitBits: '8', viewpoint: 'controller' },
  ...{ headerBytes: 0, inInstance: undefined, outInstance: undefined, configInstance: undefined },
  ...{ configBytes: undefined, intervalMillis: undefined, revision: '' },
  ...{ register: undefined, counting: 'from-0' },
};

/** What belongs to every protocol. */
const SHARED = [
  'inSize',
  'outSize',
  'unitBits',
  'viewpoint',
  'intervalMillis',
  'revision',
] as const;

/** The fields of an end that a protocol has: instances are of EtherNet/IP, registers of Modbus. */
const FIELDS: Readonly<Record<Protocol, readonly (keyof ConnectionEnd)[]>> = {
  'EtherNet/IP': [
    ...([...SHARED, 'headerBytes', 'inInstance', 'outInstance'] as const),
    ...(['configInstance', 'configBytes'] as const),
  ],
  PROFINET: SHARED,
  'Modbus/TCP': [...SHARED, 'register', 'counting'],
  'OPC UA': ['intervalMillis', 'revision'],
};

/** Whether an end of this protocol has the field. */
export const isFieldOf = (protocol: string, field: string): boolean =>
  (FIELDS[protocol as Protocol] ?? SHARED).some((one) => one === field);

/** The offers of a kind for one protocol. */
export const offersOf = (kind: Pick<Kind, 'offers'> | undefined, protocol: string) =>
  kind?.offers.filter((one) => one.protocol === protocol) ?? [];

const known = <T extends object>(fields: T): Partial<T> =>
  Object.fromEntries(
    Object.entries(fields).filter(([, value]) => value !== undefined),
  ) as Partial<T>;

/** An end with what is offered, in its own units, with its own header, from its own viewpoint. */
export function endOffered(end: ConnectionEnd, offer: ConnectionOffer): ConnectionEnd {
  const { inInstance, outInstance, configInstance, configBytes, intervalMillis } = offer;
  const measured = measureEnd(end);
  const sized =
    offer.inBytes === undefined && offer.outBytes === undefined
      ? end
      : endWithBytes(end, {
          inBytes: offer.inBytes ?? measured.inBytes ?? 0,
          outBytes: offer.outBytes ?? measured.outBytes ?? 0,
        });
  const [mine, theirs] =
    end.viewpoint === 'controller' ? [inInstance, outInstance] : [outInstance, inInstance];
  return {
    ...sized,
    ...known({
      inInstance: mine,
      outInstance: theirs,
      configInstance,
      configBytes,
      intervalMillis,
    }),
  };
}

/** A connection that is planned as it is offered: both ends have it so. */
export function connectionOffered(offer: ConnectionOffer): Connection {
  const end = endOffered(EMPTY_END, offer);
  return { protocol: offer.protocol, device: end, controller: end };
}

/** A connection in which the device's end is as offered; what its controller's project has stays what it has. */
const withOffer = (connection: Connection, offer: ConnectionOffer): Connection => ({
  ...connection,
  device: endOffered(connection.device, offer),
});

/**
 * The offer in every connection of a kind: what the device's end says becomes what is offered.
 * @returns one edit for each device whose end says something else
 */
export function offerEdits(
  doc: PlanDoc,
  devices: readonly Device[],
  kindId: string,
  offer: ConnectionOffer,
): readonly Edit[] {
  return devices.flatMap((device) => {
    const { connection } = device;
    const thing = findDoc(doc, 'device', device.id);
    if (device.kindId !== kindId || connection?.protocol !== offer.protocol || !thing) return [];
    const next = toDevice({ ...device, connection: withOffer(connection, offer) });
    return changeOf('device', thing, { connection: docOf('device', next)['connection'] ?? null });
  });
}
