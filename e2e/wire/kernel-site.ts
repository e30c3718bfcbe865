import { spawn, type ChildProcess } from 'node:child_process';
import { containsAddress, formatIpv4, formatPrefix, toIpv4, type Ipv4 } from '@ipsonomo/core/net';
import type { RouteHost, RoutePort, Translation } from '@ipsonomo/core/routes';

// A site of network namespaces: the Linux kernel routes, asks by ARP and translates, and what arrives where is
// captured in each of them.

/** A question of one host to one address. */
export interface Pair {
  readonly from: string;
  readonly to: Ipv4;
}

/** Where the request and the reply of a pair arrived, and whether the one who asked was content. */
export interface Seen {
  readonly requests: ReadonlySet<string>;
  readonly replies: ReadonlySet<string>;
  readonly answered: boolean;
}

/** What tells the pairs apart on the wire: how much each ping carries. */
const FIRST_SIZE = 60;
const ICMP_HEAD = 8;

const HUB = 'hub';

/** The namespace of a host of the site, or of its hub. */
type Namespace = (id: string) => string;

interface Ended {
  readonly code: number | null;
  readonly out: string;
  readonly err: string;
}

/** Runs a command beside others, `input` on its standard input. */
const run = (command: string, args: readonly string[], input: string): Promise<Ended> =>
  new Promise((resolve, reject) => {
    const child = spawn(command, args);
    let [out, err] = ['', ''];
    child.stdout.on('data', (text) => (out += String(text)));
    child.stderr.on('data', (text) => (err += String(text)));
    child.once('error', reject);
    child.once('close', (code) => resolve({ code, out, err }));
    child.stdin.end(input);
  });

async function sh(script: string): Promise<void> {
  const { code, err } = await run('sh', ['-s'], script);
  if (code !== 0) throw new Error(err);
}

export class KernelSite {
  private readonly captures: ChildProcess[] = [];
  private readonly lines = new Map<string, string>();
  /** Every question has a size of its own, so that it is told from all others. */
  private asked = 0;

  /** Builds a site; several at once do not meet, as long as their names differ. */
  static async build(name: string, hosts: readonly RouteHost[]): Promise<KernelSite> {
    const ns: Namespace = (id) => `${name}-${id}`;
    const links = new Set(hosts.flatMap(({ ports }) => ports.map(({ link }) => link)));
    const made = [
      `ip netns add ${ns(HUB)}`,
      ...[...links].map(
        (link) =>
          `ip -n ${ns(HUB)} link add ${link} type bridge forward_delay 0; ip -n ${ns(HUB)} link set ${link} up`,
      ),
      ...hosts.map((host) => buildScript(ns, host)),
    ];
    await sh(made.join('\n'));
    return new KernelSite(hosts, ns);
  }

  private constructor(
    private readonly hosts: readonly RouteHost[],
    private readonly ns: Namespace,
  ) {}

  /** Captures everything that arrives anywhere. */
  async listen(): Promise<void> {
    await Promise.all(
      this.hosts.map(
        ({ id }) =>
          new Promise<void>((resolve, reject) => {
            const filter = 'icmp[0] = 8 or icmp[0] = 0';
            const args = [
              'netns',
              'exec',
              this.ns(id),
              'tcpdump',
              '-n',
              '-l',
              '-i',
              'any',
              '-Q',
              'in',
              filter,
            ];
            const child = spawn('ip', args, { stdio: ['ignore', 'pipe', 'pipe'] });
            this.captures.push(child);
            this.lines.set(id, '');
            child.stdout.on('data', (text) => this.lines.set(id, `${this.lines.get(id)}${text}`));
            child.stderr.on('data', (text) => {
              if (String(text).includes('listening on')) resolve();
            });
            child.once('error', reject);
          }),
      ),
    );
  }

  /** Everybody asks everybody, two tries each, all at once. */
  async askAll(pairs: readonly Pair[]): Promise<readonly Seen[]> {
    const firstSize = FIRST_SIZE + this.asked;
    this.asked += pairs.length;
    const byHost = new Map<string, string[]>();
    pairs.forEach(({ from, to }, at) => {
      const ping = `ping -n -q -c 2 -i 0.3 -W 1 -s ${firstSize + at} ${formatIpv4(to)}`;
      const line = `(${ping} >/dev/null 2>&1 && echo ${at}) &`;
      byHost.set(from, [...(byHost.get(from) ?? []), line]);
    });
    const contents = await Promise.all(
      [...byHost].map(async ([id, lines]) => {
        const script = `${lines.join('\n')}\nwait\n`;
        return (await run('ip', ['netns', 'exec', this.ns(id), 'sh', '-s'], script)).out;
      }),
    );
    await new Promise((resolve) => setTimeout(resolve, 200));
    const answered = new Set(contents.join('\n').split('\n').filter(Boolean).map(Number));
    return pairs.map((_pair, at) => ({
      requests: this.sawAt('request', firstSize + at),
      replies: this.sawAt('reply', firstSize + at),
      answered: answered.has(at),
    }));
  }

  private sawAt(what: 'request' | 'reply', size: number): ReadonlySet<string> {
    const end = new RegExp(`ICMP echo ${what}, .*length ${size + ICMP_HEAD}$`, 'm');
    return new Set([...this.lines].filter(([, text]) => end.test(text)).map(([id]) => id));
  }

  /** Where the kernel would send each packet: the neighbour, or how it refuses. One process asks for a whole host. */
  async nextHops(pairs: readonly Pair[]): Promise<readonly string[]> {
    const hops = new Map<Pair, string>();
    await Promise.all(
      this.hosts.map(async ({ id }) => {
        const own = pairs.filter(({ from }) => from === id);
        const lines = own.map(({ to }) => `route get ${formatIpv4(to)}\n`).join('');
        const args = ['-n', this.ns(id), '-oneline', '-force', '-batch', '-'];
        const { out, err } = await run('ip', args, lines);
        const refused = new Set(
          [...err.matchAll(/^Command failed -:(\d+)$/gm)].map(([, line]) => Number(line)),
        );
        const told = out.split('\n').filter(Boolean);
        own.forEach((pair, at) =>
          hops.set(pair, refused.has(at + 1) ? 'unreachable' : hopIn(told.shift() ?? '', pair)),
        );
        if (told.length > 0) throw new Error(`${id}: more told than asked: ${told.join('; ')}`);
      }),
    );
    return pairs.map((pair) => hops.get(pair) ?? '');
  }

  async takeDown(): Promise<void> {
    for (const child of this.captures) child.kill('SIGKILL');
    const all = [HUB, ...this.hosts.map(({ id }) => id)].map(this.ns);
    await sh(
      all
        .map(
          (one) =>
            `ip netns pids ${one} 2>/dev/null | xargs -r kill -9; ip netns del ${one} || true`,
        )
        .join('\n'),
    );
  }
}

function hopIn(told: string, { to }: Pair): string {
  if (told.startsWith('broadcast')) return 'broadcast';
  return /via ([\d.]+)/.exec(told)?.[1] ?? formatIpv4(to);
}

/** What makes a namespace the host; what a real device would take and the kernel refuses is left out. */
function buildScript(namespace: Namespace, host: RouteHost): string {
  const ns = namespace(host.id);
  const hub = namespace(HUB);
  const ip = `ip -n ${ns}`;
  const sysctl = (key: string, value: number) => `net.ipv4.${key}=${value}`;
  const each = (key: string, value: number) =>
    ['all', 'default'].map((scope) => sysctl(`conf.${scope}.${key}`, value));
  const settings = [
    ...['net.ipv6.conf.all.disable_ipv6=1', 'net.ipv6.conf.default.disable_ipv6=1'],
    ...each('rp_filter', 0),
    ...each('send_redirects', 0),
    ...each('accept_redirects', 0),
    ...each('arp_ignore', 1),
    ...each('proxy_arp', host.answersForOthers ? 1 : 0),
    sysctl('ip_forward', host.forwards ? 1 : 0),
    sysctl('neigh.default.proxy_delay', 0),
  ];
  const ports = host.ports.map(({ link, address, length }, at) => {
    const cable = `${host.id}-${at}`;
    return [
      `ip -n ${hub} link add ${cable} type veth peer name e${at} netns ${ns}`,
      `ip -n ${hub} link set ${cable} master ${link} up`,
      `${ip} link set e${at} up`,
      `${ip} addr add ${formatIpv4(address)}/${length} dev e${at}`,
    ].join('\n');
  });
  const routes = host.routes.map(
    ({ to, via }) =>
      `${ip} route add ${formatPrefix(to)} via ${formatIpv4(via)} 2>/dev/null || true`,
  );
  const gateways = host.ports.flatMap(({ gateway }, at) =>
    gateway === undefined
      ? []
      : [`${ip} route add default via ${formatIpv4(gateway)} dev e${at} 2>/dev/null || true`],
  );
  return [
    `ip netns add ${ns}`,
    `ip netns exec ${ns} sysctl -qw ${settings.join(' ')}`,
    `${ip} link set lo up`,
    ...ports,
    ...routes,
    ...gateways,
    ...host.translations.map((one) => translationScript(ns, host, one)),
  ].join('\n');
}

/** Address for address, since the router also has to answer ARP for each of them. */
function translationScript(ns: string, host: RouteHost, translation: Translation): string {
  const isInside = ({ address }: RoutePort) => containsAddress(translation.inside, address);
  const inside = host.ports.findIndex(isInside);
  const outside = host.ports.findIndex((port) => !isInside(port));
  const dev = `e${outside}`;
  const chains = [
    'add table ip t',
    'add chain ip t pre { type nat hook prerouting priority -100 ; }',
    'add chain ip t post { type nat hook postrouting priority 100 ; }',
  ];
  if (translation.kind === 'many-to-one') {
    const from = formatPrefix(translation.inside);
    chains.push(
      `add rule ip t post oifname ${dev} ip saddr ${from} snat to ${formatIpv4(translation.outside)}`,
    );
    return nft(ns, chains);
  }
  const aliases: string[] = [];
  const size = 2 ** (32 - translation.inside.length);
  for (let offset = 0; offset < size; offset += 1) {
    // The last of the port's own network is nobody's address.
    if (((translation.outside.network + offset) & 255) === 255) continue;
    const [inner, outer] = [translation.inside, translation.outside].map(({ network }) =>
      formatIpv4(toIpv4(network + offset)),
    );
    aliases.push(`ip -n ${ns} addr add ${outer}/32 dev ${dev}`);
    chains.push(`add rule ip t pre iifname != e${inside} ip daddr ${outer} dnat to ${inner}`);
    chains.push(`add rule ip t post oifname ${dev} ip saddr ${inner} snat to ${outer}`);
  }
  return [...aliases, nft(ns, chains)].join('\n');
}

const nft = (ns: string, lines: readonly string[]): string =>
  `ip netns exec ${ns} nft -f - <<'RULES'\n${lines.join('\n')}\nRULES`;

export const insideAddresses = (
  { inside }: Translation,
  hosts: readonly RouteHost[],
): readonly Ipv4[] =>
  hosts
    .flatMap(({ ports }) => ports.map(({ address }) => address))
    .filter((address) => containsAddress(inside, address));
