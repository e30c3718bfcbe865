import { formatIpv4 } from '@ipsonomo/core/net';
import {
  findDevice,
  findKind,
  measureEnd,
  stationNameOf,
  type Device,
  type Plan,
} from '@ipsonomo/core/plan';
import type { CodeTopic } from '@ipsonomo/core/codes';

const number = (value: number | undefined, unit = ''): string =>
  value === undefined ? 'nothing' : `${value}${unit}`;

/** What the plan has to say to a code of this device: one sentence each; none where it is silent. */
export function besideCode(
  plan: Plan,
  device: Device,
  topic: CodeTopic | undefined,
): readonly string[] {
  const { connection } = device;
  const kind = findKind(plan, device.kindId);
  switch (topic) {
    case 'size':
      return connection ? sizes(connection) : [];
    case 'interval': {
      if (!connection) return [];
      const least = kind?.leastIntervalMillis;
      const own = connection.controller.intervalMillis;
      return [
        `The plan has an interval of ${number(own, ' ms')} at the controller and ${number(connection.device.intervalMillis, ' ms')} at the device${least === undefined ? '' : `; such a device can keep ${least} ms`}.`,
      ];
    }
    case 'instance': {
      if (!connection) return [];
      const { device: own, controller } = connection;
      const ends = (['inInstance', 'outInstance', 'configInstance'] as const).map(
        (field) => `${NAMES[field]} ${number(controller[field])} and ${number(own[field])}`,
      );
      return [`The plan has, at the controller and at the device: ${ends.join('; ')}.`];
    }
    case 'owner': {
      const controller = findDevice(plan, device.controllerId);
      return [
        controller
          ? `By the plan its controller is ${controller.title}.`
          : 'The plan names no controller of it.',
      ];
    }
    case 'identity':
      return kind
        ? [
            `The plan has ${kind.maker} ${kind.name}${kind.revision === '' ? '' : `, revision ${kind.revision}`}.`,
          ]
        : [];
    case 'path':
      return device.interfaces.map(({ address }) => `The plan has it at ${formatIpv4(address)}.`);
    case 'register': {
      const end = connection?.device;
      return end?.register === undefined
        ? []
        : [`The plan begins at register ${end.register}, counted ${COUNTING[end.counting]}.`];
    }
    case 'name':
      return [`The plan has the name ${stationNameOf(device)}.`];
    case undefined:
      return [];
  }
}

const NAMES = {
  inInstance: 'inputs',
  outInstance: 'outputs',
  configInstance: 'configuration',
} as const;

const COUNTING = {
  'from-0': 'from 0',
  'from-1': 'from 1',
  'area-digit': 'with a leading area digit',
} as const;

/** The bytes of both ends in one measure: where they differ that is the cause, where they agree the project differs. */
function sizes(connection: NonNullable<Device['connection']>): readonly string[] {
  const [own, controller] = [measureEnd(connection.device), measureEnd(connection.controller)];
  return (['inBytes', 'outBytes'] as const).map((field) => {
    const what = field === 'inBytes' ? 'to the controller' : 'from the controller';
    const [a, b] = [controller[field], own[field]];
    if (a === b)
      return a === undefined
        ? `The plan says nothing of the bytes ${what}.`
        : `The plan has ${a} bytes ${what} at both ends: ask the project of the controller for its figure.`;
    return `The plan has ${number(a, ' bytes')} ${what} at the controller and ${number(b, ' bytes')} at the device.`;
  });
}
