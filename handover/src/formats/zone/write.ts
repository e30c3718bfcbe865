import { formatIpv4, formatPrefix } from '@ipsonomo/core/net';
import { findSubnet } from '@ipsonomo/core/plan';
import { FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { leftOut, type Format, type Material, type WrittenFile } from '../../format';
import { comments, headOf } from '../../parts/head';
import { namedInterfaces, type NamedInterface } from '../../parts/host-names';
import { reverseZonesOf, type ReverseZone } from './reverse';

const DAY = 86_400;

/**
 * R-ZONES: master files (RFC 1035 §5). The serial is the revision of the plan: it rises with every change, and the same
 * plan has the same (RFC 1912 §2.2). A subnet of less than a /24 brings the lines that lead to it from the zone above.
 */
export const zones: Format = {
  id: 'zones',
  write: (material) => {
    const { named, left } = namedInterfaces(material);
    const homeless = named.filter(({ domain }) => domain === '');
    const named2 = named.filter(({ domain }) => domain !== '');
    const domains = [...new Set(named2.map(({ domain }) => domain))];
    const forward = domains.map((domain) =>
      forwardZone(
        material,
        domain,
        named2.filter((one) => one.domain === domain),
      ),
    );
    const subnetName = ({ at }: NamedInterface) =>
      findSubnet(material.plan, at.subnetId)?.name ?? '';
    return {
      files: [...forward, ...reverseFiles(material, named2)],
      left: [...left, ...homeless.map((one) => leftOut(one, 'no-domain', subnetName(one)))],
    };
  },
};

const head = (material: Material, about: string, zone: string): readonly string[] => [
  ...comments(headOf(material, about), ';'),
  `$ORIGIN ${zone}.`,
  `$TTL ${DAY}`,
];

/** Start of authority and name server (RFC 1035 §3.3.13; times as RFC 1912 §2.2 has them). */
const authority = ({ revision, options }: Material, domain: string): readonly string[] => [
  `@ IN SOA ${options.nameServer} hostmaster.${domain}. (`,
  `  ${Math.max(1, revision)} ; serial`,
  `  ${DAY} 7200 ${28 * DAY} 7200 )`,
  `@ IN NS ${options.nameServer}`,
];

function forwardZone(
  material: Material,
  domain: string,
  named: readonly NamedInterface[],
): WrittenFile {
  const lines = named.map(({ host, at }) => `${host} IN A ${formatIpv4(at.address)}`);
  return zoneFile(domain, [
    ...head(material, FILE_WORDS.zone, domain),
    ...authority(material, domain),
    ...lines.sort(),
  ]);
}

const zoneFile = (name: string, lines: readonly string[]): WrittenFile => ({
  ...{ name: `${name.replace(/\//g, '-')}.zone`, content: `${lines.join('\n')}\n` },
});

function reverseFiles(
  material: Material,
  named: readonly NamedInterface[],
): readonly WrittenFile[] {
  const zonesByName = new Map<string, ReverseZone>();
  const prefixes = new Map(
    named.flatMap(({ at }) => {
      const prefix = findSubnet(material.plan, at.subnetId)?.prefix;
      return prefix ? [[formatPrefix(prefix), prefix] as const] : [];
    }),
  );
  for (const prefix of prefixes.values())
    for (const zone of reverseZonesOf(prefix)) zonesByName.set(zone.name, zone);
  return [...zonesByName.values()].flatMap((zone) => {
    const inside = named
      .filter(({ at }) => zone.has(at.address))
      .sort((one, other) => one.at.address - other.at.address);
    return inside.length === 0 ? [] : reverseZone(material, zone, inside);
  });
}

function reverseZone(
  material: Material,
  zone: ReverseZone,
  inside: readonly NamedInterface[],
): readonly WrittenFile[] {
  const domain = inside[0]?.domain ?? '';
  const lines = inside.map(
    ({ at, host, domain: own }) => `${zone.label(at.address)} IN PTR ${host}.${own}.`,
  );
  const { above } = zone;
  const file = zoneFile(zone.name, [
    ...head(material, FILE_WORDS.zone, zone.name),
    ...authority(material, domain),
    ...lines,
  ]);
  if (above === undefined) return [file];
  const label = zone.name.slice(0, -above.length - 1);
  return [
    file,
    {
      name: `${zone.name.replace(/\//g, '-')}.above.txt`,
      content: `${[
        ...comments([FILE_WORDS.delegate], ';'),
        `$ORIGIN ${above}.`,
        `${label} IN NS ${material.options.nameServer}`,
        ...inside.map(({ at }) => {
          const own = zone.label(at.address);
          return `${own} IN CNAME ${own}.${zone.name}.`;
        }),
      ].join('\n')}\n`,
    },
  ];
}
