import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { api } from '../harness';
import { udhcpc } from './clients';
import { onWire } from './on-wire';

// The reservations that go out of the house, given to dnsmasq: it answers as Ipsonomo would.

const on = onWire('ipsx');

test('dnsmasq with the exported configuration gives what is planned, by MAC and by name, and nothing else', async () => {
  const drive = await on.job.plan('drive-1', 'belloch-drive-d4', 'dhcp-mac', '10.77.0.121');
  await on.job.plan('terminal4-001', 'strathan-terminal-4', 'dhcp-name', '10.77.0.112');
  await on.job.bind(drive, '02:00:5e:00:53:21');
  const config = await api<string>(
    on.server,
    'GET',
    `/jobs/${on.job.id}/files/dnsmasq?despite=yes`,
  );
  const file = join(mkdtempSync(join(tmpdir(), 'ipsonomo-')), 'dhcp.conf');
  writeFileSync(file, config);
  const { laptop } = on.wire;
  laptop.ip('addr', 'add', '10.77.0.1/24', 'dev', 'mach0');
  const quiet = ['-k', '-p', '0', '-u', 'root', '--leasefile-ro', '--no-ping'];
  const dnsmasq = laptop.start(
    'dnsmasq',
    ...quiet,
    '-i',
    'mach0',
    '--bind-interfaces',
    `-C${file}`,
  );
  const byMac = on.wire.addDevice('m1', '02:00:5e:00:53:21');
  expect(udhcpc(byMac, 10).address).toBe('10.77.0.121');
  const byName = on.wire.addDevice('n1', '02:00:5e:00:53:22');
  const named = ['-x', 'hostname:terminal4-001'];
  expect(udhcpc(byName, 10, 'eth0', named).address).toBe('10.77.0.112');
  const nobody = on.wire.addDevice('x1', '02:00:5e:00:53:23');
  expect(udhcpc(nobody, 3).address).toBeUndefined();
  dnsmasq.kill('SIGTERM');
});
