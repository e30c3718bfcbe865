import { expect, test } from '@playwright/test';
import { api } from '../harness';
import { addDevices } from '../jobs';
import { onWire } from './on-wire';

// R-WALK on real adapters: a kernel as router, and devices beyond it.

const on = onWire('ipsx');

async function subnet(name: string, network: string, gateway: string): Promise<string> {
  const { id } = await api<{ id: string }>(on.server, 'POST', `/jobs/${on.job.id}/subnets`, {
    ...{ name, network, gateway, vlan: null, purpose: 'machine network' },
  });
  return id;
}

async function deviceIn(subnetId: string, name: string, address: string): Promise<string> {
  const fields = {
    title: name,
    name,
    kindId: 'belloch-drive-d4',
    way: 'keypad',
    subnetId,
    address,
  };
  const devices = [{ ...fields, area: '', cabinet: '', position: '' }];
  const [at] = await addDevices(on.server, on.job.id, devices);
  if (!at) throw new Error(`${name} was not added`);
  return at;
}

test('router by router: to the device, as far as it goes, and where the router knows no way', async () => {
  const near = await subnet('Near', '10.76.0.0/24', '10.76.0.1');
  const far = await subnet('Far', '10.78.0.0/24', '10.78.0.1');
  const nowhere = await subnet('Nowhere', '10.79.0.0/24', '10.79.0.1');
  const [there, lost] = [
    await deviceIn(far, 'far-drive', '10.78.0.12'),
    await deviceIn(nowhere, 'lost-drive', '10.79.0.12'),
  ];
  const router = on.wire.addDevice('rt', '02:00:5e:00:53:81');
  const device = on.wire.addMachine('far');
  router.ip('addr', 'add', '10.76.0.1/24', 'dev', 'eth0');
  const end = ['peer', 'name', 'eth0', 'netns', device.namespace];
  router.ip('link', 'add', 'out', 'type', 'veth', ...end);
  router.ip('addr', 'add', '10.78.0.1/24', 'dev', 'out');
  router.ip('link', 'set', 'out', 'up');
  router.run('sysctl', '-qw', 'net.ipv4.ip_forward=1');
  device.ip('addr', 'add', '10.78.0.12/24', 'dev', 'eth0');
  device.ip('link', 'set', 'eth0', 'up');
  device.ip('route', 'add', 'default', 'via', '10.78.0.1');

  await on.job.act(there, 'walk', { subnetId: near });
  expect((await on.job.seen(there, 'walked')).facts).toMatchObject({
    ...{ ended: 'reply', path: '10.76.0.1 10.78.0.12' },
  });
  await on.job.act(lost, 'walk', { subnetId: near });
  expect((await on.job.seen(lost, 'walked')).facts).toMatchObject({
    ...{ ended: 'net-unreachable', path: '10.76.0.1' },
  });
  // Without a gateway the device gets it and cannot answer.
  device.ip('route', 'del', 'default');
  const before = (await on.job.evidence(there)).length;
  await on.job.act(there, 'walk', { subnetId: near });
  await expect
    .poll(async () => (await on.job.evidence(there)).length, { timeout: 30_000 })
    .toBeGreaterThan(before);
  expect((await on.job.evidence(there))[0]?.facts).toMatchObject({
    ...{ ended: 'silent', path: '10.76.0.1 - - -' },
  });
  // The laptop itself is left as it was.
  expect(on.wire.laptop.ip('-4', '-o', 'address', 'show', 'dev', 'mach0')).toBe('');
});
