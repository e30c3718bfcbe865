import { formatIpv4 } from '@ipsonomo/core/net';
import { FILE_WORDS, NEED_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { comments, headOf, listLeft } from '../../parts/head';
import { needsOf, type Need } from '../../parts/needs';
import { oneLine } from '../../parts/text';

/** The longest comment of a rule, in bytes (nft(8): NFTNL_UDATA_COMMENT_MAXLEN is 128 with its end; from memory). */
const MOST_COMMENT = 120;

/**
 * R-NFTABLES: what passes between subnets: exactly the needed connections and what belongs to them. Errors of ICMP are
 * related, and pass (RFC 4890 says why for IPv6; the same is common practice here). The table is a new one each time the
 * file is loaded, so that nothing of an older one stays.
 */
export const nftables: Format = {
  id: 'nftables',
  write: (material) => {
    const { needs, left } = needsOf(material);
    const rules = needs.filter(({ isInside }) => !isInside).map(ruleOf);
    const content = [
      '#!/usr/sbin/nft -f',
      ...comments([...headOf(material, FILE_WORDS.firewall), ...listLeft(left)], '#'),
      'table inet ipsonomo',
      'delete table inet ipsonomo',
      'table inet ipsonomo {',
      '  chain forward {',
      '    type filter hook forward priority filter; policy drop;',
      '    ct state established,related accept',
      ...rules.map((rule) => `    ${rule}`),
      '  }',
      '}',
      '',
    ].join('\n');
    return { files: [{ name: fileName(material, 'firewall', '.nft'), content }], left };
  },
};

function ruleOf({ from, to, protocol, port, why }: Need): string {
  const sides = `ip saddr ${formatIpv4(from.address)} ip daddr ${formatIpv4(to.at.address)}`;
  const about = `${from.device.title} -> ${to.device.title}: ${NEED_WORDS[why]}`;
  return `${sides} ${protocol} dport ${port} accept comment "${commentOf(about)}"`;
}

/** Quotes end a comment, and nothing escapes them. */
function commentOf(text: string): string {
  let short = oneLine(text).replace(/["\\]/g, "'");
  while (new TextEncoder().encode(short).length > MOST_COMMENT) short = short.slice(0, -1);
  return short;
}
