import type { HostTraits } from '@ipsonomo/core/host';
import { speaksEnip } from '@ipsonomo/core/plan';
import { ENIP_PORT } from '@ipsonomo/core/wire';
import type { ClientTraits } from './client';
import type { DeviceDefinition } from './definition';
import type { Start } from './start';

/** How a device is on the wire: its MAC, whether it answers ping, and the services it has. */
export function hostTraits({ mac, kind }: DeviceDefinition): HostTraits {
  const { answersPing } = kind;
  const tcp = kind.services.filter(({ protocol }) => protocol === 'tcp').map(({ port }) => port);
  const tcpPorts = [...new Set([...(speaksEnip(kind) ? [ENIP_PORT] : []), ...tcp])];
  return { mac, answersPing, forwards: false, tcpPorts };
}

/** How it asks for an address. */
export function clientTraits(definition: DeviceDefinition, start: Start): ClientTraits {
  const { mac, kind } = definition;
  const asks = start.kind === 'asks' ? start : undefined;
  return {
    mac,
    by: asks?.by ?? 'dhcp',
    hostName: asks?.name ?? definition.hostName,
    vendorClass: definition.vendorClass ?? kind.vendorClass,
    longestPause: kind.longestPauseSeconds * 1000,
    wantsBroadcast: false,
  };
}
