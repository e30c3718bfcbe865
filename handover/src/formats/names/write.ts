import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import { dhcpNameOf, findDevice, stationNameOf } from '@ipsonomo/core/plan';
import { NAME_HEADS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { csv } from '../../parts/csv';

/** By which name a controller finds a device, and which address belongs to it. */
export const names: Format = {
  id: 'names',
  write: (material) => {
    const rows = material.chosen.map(({ device, at }) => [
      findDevice(material.plan, device.controllerId)?.title ?? '',
      ...[device.title, stationNameOf(device), dhcpNameOf(device), formatIpv4(at.address)],
      at.mac === undefined ? '' : formatMac(at.mac),
    ]);
    const content = csv(NAME_HEADS, rows);
    return { files: [{ name: fileName(material, 'names', '.csv'), content }], left: [] };
  },
};
