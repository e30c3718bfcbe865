import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { api, until } from '../harness';
import { bootpc, dhclient, udhcpc } from './clients';
import type { Machine } from './namespaces';
import { onWire } from './on-wire';

// The reservations that go out of the house, given to each of the three servers: it answers as Ipsonomo would, real
// clients by MAC over DHCP and BootP, by name in option 12 and in option 61, by the port of a relay; and nobody else.

const on = onWire('ipsx');

const SERVER = '10.77.0.1';
const MACS = {
  drive: '02:00:5e:00:53:21',
  valve: '02:00:5e:00:53:24',
  nobody: '02:00:5e:00:53:23',
} as const;

interface Clients {
  readonly byMac: Machine;
  readonly byBootp: Machine;
  readonly byName: Machine;
  readonly nobody: Machine;
  readonly relay: Machine;
  readonly behind: Machine;
}
let clients: Clients;

test.beforeAll(async () => {
  const drive = await on.job.plan('drive-1', 'belloch-drive-d4', 'dhcp-mac', '10.77.0.121');
  const valve = await on.job.plan('valve-1', 'tarnwick-valves-16', 'bootp', '10.77.0.122');
  await on.job.plan('terminal4-001', 'strathan-terminal-4', 'dhcp-name', '10.77.0.112');
  await on.job.plan('terminal4-002', 'strathan-terminal-4', 'dhcp-name', '10.77.0.113');
  const node = await on.job.plan('node-1', 'brindal-node-p', 'dhcp-port', '10.77.0.131');
  await on.job.bind(drive, MACS.drive);
  await on.job.bind(valve, MACS.valve);
  await on.job.plugInto(node, 'p1');
  on.wire.laptop.ip('addr', 'add', `${SERVER}/24`, 'dev', 'mach0');
  clients = {
    byMac: on.wire.addDevice('m1', MACS.drive),
    byBootp: on.wire.addDevice('b1', MACS.valve),
    byName: on.wire.addDevice('n1', '02:00:5e:00:53:22'),
    nobody: on.wire.addDevice('x1', MACS.nobody),
    ...behindARelay(),
  };
});

/** A machine whose requests come by way of a relay, which tells the port they came in at. */
function behindARelay(): Pick<Clients, 'relay' | 'behind'> {
  const relay = on.wire.addDevice('r1', '02:00:5e:00:53:31');
  const behind = on.wire.addMachine('c1');
  relay.ip('addr', 'add', '10.77.0.2/24', 'dev', 'eth0');
  const end = ['peer', 'name', 'eth0', 'netns', behind.namespace, 'address', '02:00:5e:00:53:32'];
  relay.ip('link', 'add', 'p1', 'type', 'veth', ...end);
  relay.ip('addr', 'add', '10.77.0.3/32', 'dev', 'p1');
  relay.ip('link', 'set', 'p1', 'up');
  behind.ip('link', 'set', 'eth0', 'up');
  return { relay, behind };
}

/** What a server is started with, in a folder of its own. @param config the file as it left */
type Start = (laptop: Machine, config: string, folder: string) => ReturnType<Machine['start']>;

const SERVERS: Readonly<Record<string, Start>> = {
  dnsmasq: (laptop, config) =>
    laptop.start(
      ...(['dnsmasq', '-k', '-p', '0', '-u', 'root', '--leasefile-ro', '--no-ping'] as const),
      ...['-i', 'mach0', '--bind-interfaces', `-C${config}`],
    ),
  dhcpd: (laptop, config, folder) => {
    writeFileSync(join(folder, 'leases'), '');
    const files = ['-cf', config, '-lf', join(folder, 'leases'), '-pf', join(folder, 'pid')];
    const line = `exec dhcpd -4 -f -q ${files.join(' ')} mach0 2>/dev/null`;
    return laptop.start('sh', '-c', `PATH=$PATH:/usr/sbin; ${line}`);
  },
  // It keeps its leases where Debian's package has a folder for them; here they stay in memory.
  'kea-dhcp4': (laptop, config, folder) => {
    const own = `KEA_LOCKFILE_DIR=${folder} KEA_PIDFILE_DIR=${folder} KEA_LOGGER_DESTINATION=/dev/null`;
    return laptop.start(
      'sh',
      '-c',
      `PATH=$PATH:/usr/sbin; exec env ${own} kea-dhcp4 -c ${config} >/dev/null 2>&1`,
    );
  },
};
const FORMATS = { dnsmasq: 'dnsmasq', dhcpd: 'dhcpd', 'kea-dhcp4': 'kea' } as const;

for (const [program, start] of Object.entries(SERVERS))
  test(`${program} with the exported configuration gives what is planned, by MAC, BootP, name and port, and nothing else`, async () => {
    const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-'));
    const config = join(folder, 'config');
    writeFileSync(config, await configOf(program as keyof typeof FORMATS));
    const { laptop } = on.wire;
    const server = start(laptop, config, folder);
    try {
      await until(`${program} is there`, async () => isListening(laptop));
      expect(udhcpc(clients.byMac, 10).address).toBe('10.77.0.121');
      // Its socket is an ordinary one: it hears an answer to everybody alone (RFC 951 §4, RFC 1542 §3.1.1).
      expect(bootpc(clients.byBootp, 10, ['--serverbcast']).address).toBe('10.77.0.122');
      const named = ['-x', 'hostname:terminal4-001'];
      expect(udhcpc(clients.byName, 10, 'eth0', named).address).toBe('10.77.0.112');
      expect(dhclient(clients.byName, 'terminal4-002', 15).address).toBe('10.77.0.113');
      const sides = ['-id', 'p1', '-iu', 'eth0'];
      const line = `exec dhcrelay -4 -d -a ${sides.join(' ')} ${SERVER} 2>/dev/null`;
      const relaying = clients.relay.start('sh', '-c', line);
      await until('the relay is there', async () => isListening(clients.relay));
      expect(udhcpc(clients.behind, 10).address).toBe('10.77.0.131');
      relaying.kill('SIGTERM');
      expect(udhcpc(clients.nobody, 3).address).toBeUndefined();
    } finally {
      server.kill('SIGTERM');
      await until(`${program} is gone`, async () => !isListening(laptop));
    }
  });

/** Kea's, with the one thing changed that its own machine would have otherwise: where leases are kept. */
async function configOf(program: keyof typeof FORMATS): Promise<string> {
  const path = `/jobs/${on.job.id}/files/${FORMATS[program]}?despite=yes`;
  const read: unknown = await api<unknown>(on.server, 'GET', path);
  if (program !== 'kea-dhcp4') return String(read);
  const { Dhcp4 } = (typeof read === 'string' ? JSON.parse(read) : read) as { Dhcp4: object };
  return JSON.stringify({
    Dhcp4: { ...Dhcp4, 'lease-database': { type: 'memfile', persist: false } },
  });
}

/** Somebody has the port of DHCP, on a socket of UDP or of packets. */
const isListening = (machine: Machine): boolean => {
  const { out } = machine.run('ss', '-luwn0p');
  return /:67\b|:bootps|kea-dhcp4|dhcpd/.test(out);
};
