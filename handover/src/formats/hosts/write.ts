import { formatIpv4 } from '@ipsonomo/core/net';
import { FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { comments, headOf, listLeft } from '../../parts/head';
import { namedInterfaces } from '../../parts/host-names';
import { oneLine } from '../../parts/text';

/** R-HOSTS: hosts(5): address, full name where its subnet has a domain, short name; in the order of the addresses. */
export const hosts: Format = {
  id: 'hosts',
  write: (material) => {
    const { named, left } = namedInterfaces(material);
    const lines = [...named]
      .sort((one, other) => one.at.address - other.at.address)
      .map(({ at, host, domain, device }) => {
        const names = [...(domain === '' ? [] : [`${host}.${domain}`]), host];
        return `${formatIpv4(at.address)}\t${names.join(' ')}\t# ${oneLine(device.title)}`;
      });
    const head = comments([...headOf(material, FILE_WORDS.hosts), ...listLeft(left)], '#');
    const content = `${[...head, ...lines].join('\n')}\n`;
    return { files: [{ name: fileName(material, 'hosts', '.txt'), content }], left };
  },
};
