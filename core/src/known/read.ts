import {
  formatIpv4,
  parseIpv4,
  parseMac,
  refuse,
  ok,
  type Ipv4,
  type MacAddress,
  type Result,
} from '../net';

// What others know already of who is where: leases and reservations of DHCP servers, and what a machine's own tools print.

export const KNOWN_KINDS = [
  ...(['dnsmasq-leases', 'dhcpd-leases', 'kea-leases', 'dnsmasq', 'dhcpd', 'kea'] as const),
  ...(['neighbours', 'own-adapters', 'alive'] as const),
] as const;
export type KnownKind = (typeof KNOWN_KINDS)[number];

export interface KnownEntry {
  /** Counted from 1. */
  readonly line: number;
  readonly address: Ipv4 | undefined;
  readonly mac: MacAddress | undefined;
  /** Empty where it says none. */
  readonly name: string;
}

export interface Known {
  readonly kind: KnownKind;
  readonly entries: readonly KnownEntry[];
}

/**
 * R-KNOWN: reads the leases of dnsmasq, ISC dhcpd and Kea, their reservations, and what `arp -a`, `ip neigh`,
 * `ipconfig /all` and fping print, in whatever language the system speaks: addresses and MACs are the same in all. Of
 * several leases of one address the last one counts (dhcpd.leases(5); Kea appends as well).
 * @returns refusal `known.nothing` where neither an address nor a MAC is in it
 */
export function readKnown(text: string): Result<Known> {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  for (const [kind, read] of READERS) {
    const entries = read(lines, text);
    if (entries !== undefined && entries.length > 0)
      return ok({ kind, entries: lastOfEach(entries) });
  }
  return refuse('known.nothing', '');
}

type Reader = (lines: readonly string[], text: string) => readonly KnownEntry[] | undefined;

const IPV4 = /(?<![\d.])(\d{1,3}(?:\.\d{1,3}){3})(?![\d.])/;
const MAC = /(?<![0-9a-f:.-])((?:[0-9a-f]{1,2}[:-]){5}[0-9a-f]{1,2})(?![0-9a-f:-])/i;

/** Some print a leading zero of each pair, some do not. */
function macIn(text: string): MacAddress | undefined {
  const found = MAC.exec(text)?.[1];
  if (found === undefined) return undefined;
  const read = parseMac(
    found
      .split(/[:-]/)
      .map((pair) => pair.padStart(2, '0'))
      .join(':'),
  );
  return read.ok && read.value !== 0 && read.value !== 0xffff_ffff_ffff ? read.value : undefined;
}

function addressIn(text: string): Ipv4 | undefined {
  const found = IPV4.exec(text)?.[1];
  const read = found === undefined ? undefined : parseIpv4(found);
  return read?.ok ? read.value : undefined;
}

const entry = (line: number, of: Partial<Omit<KnownEntry, 'line'>>): KnownEntry => ({
  ...{ line, address: undefined, mac: undefined, name: '', ...of },
});

/** Each line by itself; those that say nothing are passed over. */
const byLine =
  (of: (line: string, number: number) => KnownEntry | undefined): Reader =>
  (lines) =>
    lines.flatMap((line, at) => of(line, at + 1) ?? []);

/** `1796041043 02:00:5e:00:53:11 10.9.0.7 vb-1 01:02:00:…`, a star for what is not known (dnsmasq(8)). */
const dnsmasqLeases = byLine((line, number) => {
  const [, mac = '', address = '', name = ''] =
    /^\d+ (\S+) (\d+(?:\.\d+){3}) (\S+) \S+\s*$/.exec(line.trim()) ?? [];
  const at = addressIn(address);
  return at === undefined
    ? undefined
    : entry(number, { address: at, mac: macIn(mac), name: name === '*' ? '' : name });
});

/** `lease 10.9.0.7 { … }`; one that is free again is nobody's (dhcpd.leases(5)). */
const dhcpdLeases: Reader = (lines, text) =>
  /^\s*lease\s+[\d.]+\s*\{/m.test(text)
    ? blocksOf(lines, /^\s*lease\s+([\d.]+)\s*\{/).flatMap(({ line, head, body }) => {
        const isFree = /^\s*binding state (free|backup|abandoned|expired|released);/m.test(body);
        const name = /client-hostname "([^"]*)"/.exec(body)?.[1] ?? '';
        const mac = macIn(/hardware ethernet\s+(\S+?);/.exec(body)?.[1] ?? '');
        // It takes the place of an older one, which counts no longer either.
        return [
          entry(
            line,
            isFree ? { address: addressIn(head) } : { address: addressIn(head), mac, name },
          ),
        ];
      })
    : undefined;

/** `host x { hardware ethernet …; fixed-address …; }` (dhcpd.conf(5)). */
const dhcpdHosts: Reader = (lines, text) =>
  /^\s*host\s+\S+\s*\{/m.test(text)
    ? blocksOf(lines, /^\s*host\s+(\S+)\s*\{/).map(({ line, head, body }) =>
        entry(line, {
          address: addressIn(/fixed-address\s+([^;]+);/.exec(body)?.[1] ?? ''),
          mac: macIn(/hardware ethernet\s+([^;]+);/.exec(body)?.[1] ?? ''),
          name: /option host-name "([^"]*)"/.exec(body)?.[1] ?? head,
        }),
      )
    : undefined;

interface Block {
  readonly line: number;
  readonly head: string;
  readonly body: string;
}

/** From a head to the brace that closes it; braces within are rare there, and quotes hold none of them. */
function blocksOf(lines: readonly string[], head: RegExp): readonly Block[] {
  const blocks: { line: number; head: string; body: string }[] = [];
  let isOpen = false;
  lines.forEach((raw, at) => {
    const line = raw.replace(/#.*$/, '');
    const found = head.exec(line);
    if (found) blocks.push({ line: at + 1, head: found[1] ?? '', body: '' });
    isOpen = isOpen || found !== null;
    const last = blocks.at(-1);
    if (isOpen && last) last.body += `${found ? line.slice(found[0].length) : line}\n`;
    if (line.includes('}')) isOpen = false;
  });
  return blocks;
}

/** A table with a head that names its columns (Kea's memfile). */
const keaLeases: Reader = (lines) => {
  const heads = (lines[0] ?? '').trim().split(',');
  const [address, mac, name, state] = ['address', 'hwaddr', 'hostname', 'state'].map((one) =>
    heads.indexOf(one),
  );
  if (address !== 0 || mac === undefined || mac < 0) return undefined;
  return lines.slice(1).flatMap((line, at) => {
    const cells = line.split(',');
    const found = addressIn(cells[address] ?? '');
    if (found === undefined) return [];
    // 0 is in use (Kea, "memfile": state).
    const isFree = (cells[state ?? -1] ?? '0').trim() !== '0';
    return entry(at + 2, {
      address: found,
      ...(isFree ? {} : { mac: macIn(cells[mac] ?? ''), name: cells[name ?? -1] ?? '' }),
    });
  });
};

/** Reservations of any subnet, or of all (Kea, "Host Reservations in DHCPv4"). */
const keaHosts: Reader = (_lines, text) => {
  if (!/^\s*\{/.test(text) || !text.includes('Dhcp4')) return undefined;
  try {
    const json = JSON.parse(text) as { Dhcp4?: { reservations?: unknown; subnet4?: unknown } };
    const subnets = listOf(json.Dhcp4?.subnet4).flatMap((one) => listOf(one['reservations']));
    return [...listOf(json.Dhcp4?.reservations), ...subnets].map((one) => {
      const said = (field: string) => (typeof one[field] === 'string' ? one[field] : '');
      const mac = said('hw-address');
      // JSON has no lines to speak of: where its MAC or its address stands.
      const at = text.indexOf(mac || said('ip-address'));
      const line = text.slice(0, Math.max(0, at)).split('\n').length;
      return entry(line, {
        ...{ address: addressIn(said('ip-address')), mac: macIn(mac), name: said('hostname') },
      });
    });
  } catch {
    return undefined;
  }
};

const listOf = (json: unknown): readonly Readonly<Record<string, unknown>>[] =>
  Array.isArray(json) ? (json as readonly Readonly<Record<string, unknown>>[]) : [];

/** `dhcp-host=02:00:…,name,10.9.0.7,12h` in any order (dnsmasq(8)). */
const dnsmasqHosts = byLine((line, number) => {
  const value = /^\s*(?:--)?dhcp-host\s*=\s*(.+?)\s*$/.exec(line)?.[1];
  if (value === undefined) return undefined;
  const parts = value.split(',').map((one) => one.trim());
  const name = parts.find(
    (one) =>
      /^[a-z][a-z0-9.-]*$/i.test(one) &&
      !/^(ignore|infinite|\d+[smhdw]?)$/i.test(one) &&
      macIn(one) === undefined,
  );
  return entry(number, {
    address: parts.map(addressIn).find((one) => one !== undefined),
    mac: parts.map(macIn).find((one) => one !== undefined),
    name: name ?? '',
  });
});

/** `arp -a` of Linux, Windows and others, `ip neigh`: an address and a MAC in one line. */
const neighbours = byLine((line, number) => {
  const [address, mac] = [addressIn(line), macIn(line)];
  if (address === undefined || mac === undefined) return undefined;
  const name = /^(\S+) \([\d.]+\) at /.exec(line)?.[1] ?? '';
  return entry(number, { address, mac, name: name === '?' ? '' : name });
});

/** `ipconfig /all`: an adapter has its MAC in a line, and its address in one below; masks and gateways are none. */
const ownAdapters: Reader = (lines) => {
  const entries: KnownEntry[] = [];
  let mac: MacAddress | undefined;
  const host =
    lines.map((line) => /^\s*(?:Host ?name|Hostname)[ .]*: (\S+)/i.exec(line)?.[1]).find(Boolean) ??
    '';
  lines.forEach((line, at) => {
    // A new adapter begins at the left edge.
    if (/^\S/.test(line)) mac = undefined;
    mac = macIn(line) ?? mac;
    const address = /^\s+[^:]*IPv4[^:]*: *([\d.]+)/i.exec(line)?.[1];
    if (address !== undefined && mac !== undefined)
      entries.push(entry(at + 1, { address: addressIn(address), mac, name: host }));
  });
  return entries;
};

/** fping: `10.9.0.7 is alive`, or the address alone; what is unreachable is not there. */
const alive = byLine((line, number) => {
  if (/unreachable|timed out|duplicate/i.test(line)) return undefined;
  const address = /^\s*(\d+(?:\.\d+){3})\s*(?:is alive.*|\(?[\d.]+ ms\)?.*)?$/.exec(line)?.[1];
  const found = address === undefined ? undefined : addressIn(address);
  return found === undefined ? undefined : entry(number, { address: found });
});

/** The narrower ones first: what has a form of its own is taken for nothing else. */
const READERS: readonly (readonly [KnownKind, Reader])[] = [
  ['kea', keaHosts],
  ['kea-leases', keaLeases],
  ['dhcpd-leases', dhcpdLeases],
  ['dhcpd', dhcpdHosts],
  ['dnsmasq', dnsmasqHosts],
  ['dnsmasq-leases', dnsmasqLeases],
  ['neighbours', neighbours],
  ['own-adapters', ownAdapters],
  ['alive', alive],
];

/** Of several with one address the last; without an address each. One that says nothing but its address took another's place. */
function lastOfEach(all: readonly KnownEntry[]): readonly KnownEntry[] {
  const byAddress = new Map<string, KnownEntry>();
  for (const one of all) {
    const key = one.address === undefined ? `line ${one.line}` : formatIpv4(one.address);
    byAddress.delete(key);
    byAddress.set(key, one);
  }
  return [...byAddress.values()].filter(
    ({ address, mac }) => address !== undefined || mac !== undefined,
  );
}
