import { formatIpv4 } from '@ipsonomo/core/net';
import { NEED_WORDS, NEED_HEADS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { csv } from '../../parts/csv';
import { needsOf } from '../../parts/needs';

/** The firewall table: every connection the plan needs; those within a subnet are marked, no firewall sees them. */
export const firewall: Format = {
  id: 'firewall',
  write: (material) => {
    const { needs, left } = needsOf(material);
    const rows = needs.map(({ from, to, protocol, port, service, why, isInside }) => [
      ...[from.device.title, formatIpv4(from.address), to.device.title, formatIpv4(to.at.address)],
      ...[protocol, String(port), service, NEED_WORDS[why]],
      isInside ? NEED_WORDS.inside : '',
    ]);
    const content = csv(NEED_HEADS, rows);
    return { files: [{ name: fileName(material, 'firewall', '.csv'), content }], left };
  },
};
