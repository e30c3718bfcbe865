import { formatIpv4 } from '@ipsonomo/core/net';
import { findKind, findSubnet } from '@ipsonomo/core/plan';
import { fileName, leftOut, type Format } from '../../format';
import { hostNameOf } from '../../parts/host-names';

/**
 * R-TARGETS: a list for file-based service discovery: an object for each interface, since each has labels of its own.
 * Names of labels are letters, digits and underscores.
 */
export const targets: Format = {
  id: 'targets',
  write: (material) => {
    const { plan, chosen } = material;
    const answers = ({ device }: (typeof chosen)[number]) =>
      findKind(plan, device.kindId)?.answersPing ?? true;
    const list = chosen.filter(answers).map((one) => {
      const { device, at } = one;
      const labels = {
        ...{ job: material.job, device: device.title, host: hostNameOf(one) },
        ...{ area: device.area, cabinet: device.cabinet, position: device.position },
        subnet: findSubnet(plan, at.subnetId)?.name ?? '',
        kind: findKind(plan, device.kindId)?.name ?? '',
      };
      const said = Object.entries(labels).filter(([, value]) => value !== '');
      return { targets: [formatIpv4(at.address)], labels: Object.fromEntries(said) };
    });
    return {
      files: [
        {
          name: fileName(material, 'targets', '.json'),
          content: `${JSON.stringify(list, null, 2)}\n`,
        },
      ],
      left: chosen.filter((one) => !answers(one)).map((one) => leftOut(one, 'no-ping')),
    };
  },
};
