import { expect, test } from '@playwright/test';
import { until } from '../harness';
import { udhcpc } from './clients';
import { onWire } from './on-wire';
import { type Machine } from './namespaces';

// Telling a device to keep its address, and proving it, through the kernel's own TCP, ARP and ping.

const VALVES = 'tarnwick-valves-16';
const DRIVE = 'belloch-drive-d4';

const on = onWire('ipsc');

/** A device at its planned address that speaks EtherNet/IP, or takes calls and stays mute. */
async function enipDevice(
  id: string,
  mac: string,
  address: string,
  mute = false,
): Promise<Machine> {
  const device = on.wire.addDevice(id, mac);
  device.ip('addr', 'add', `${address}/24`, 'dev', 'eth0');
  await device.startScript('enip-device.ts', [address, '0x11', ...(mute ? ['mute'] : [])]);
  return device;
}

const borrowedOn = (): string => on.wire.laptop.ip('-4', 'addr', 'show', 'dev', 'mach0');

test('told to keep its address: bits 0–3 cleared, bit 4 kept, and nothing left on the adapter', async () => {
  const mac = '02:00:5e:00:53:11';
  await enipDevice('e1', mac, '10.77.0.111');
  const at = await on.job.plan('valves-11', VALVES, 'bootp', '10.77.0.111');
  await on.job.bind(at, mac);
  await on.job.act(at, 'pin');
  const { facts } = await on.job.seen(at, 'told-to-keep');
  expect(facts).toMatchObject({ before: 0x11, after: 0x10 });
  await until('the borrowed address is given back', async () => !borrowedOn().includes('inet '));
  expect(on.wire.laptop.ip('route', 'show')).not.toContain('10.77.0.111');
});

test('two conversations at once share one borrowed address', async () => {
  const macs = ['02:00:5e:00:53:12', '02:00:5e:00:53:13'] as const;
  const ids: string[] = [];
  for (const [index, mac] of macs.entries()) {
    const address = `10.77.0.${112 + index}`;
    await enipDevice(`e${index + 2}`, mac, address);
    const at = await on.job.plan(`valves-${12 + index}`, VALVES, 'bootp', address);
    await on.job.bind(at, mac);
    ids.push(at);
  }
  await Promise.all(ids.map((at) => on.job.act(at, 'pin')));
  for (const at of ids) await on.job.seen(at, 'told-to-keep');
  await until('given back', async () => !borrowedOn().includes('inet '));
});

test('not a word to another device that answers at the address', async () => {
  await enipDevice('e4', '02:00:5e:00:53:99', '10.77.0.114');
  const at = await on.job.plan('valves-14', VALVES, 'bootp', '10.77.0.114');
  await on.job.bind(at, '02:00:5e:00:53:14');
  await on.job.act(at, 'pin');
  const { facts } = await on.job.seen(at, 'keep-refused');
  expect(facts).toMatchObject({ why: 'other-device', found: '02:00:5e:00:53:99' });
});

test('nobody listens on its port: refused, said as such', async () => {
  const device = on.wire.addDevice('e5', '02:00:5e:00:53:15');
  device.ip('addr', 'add', '10.77.0.115/24', 'dev', 'eth0');
  const at = await on.job.plan('valves-15', VALVES, 'bootp', '10.77.0.115');
  await on.job.bind(at, '02:00:5e:00:53:15');
  await on.job.act(at, 'pin');
  expect((await on.job.seen(at, 'keep-refused')).facts).toEqual({ why: 'refused' });
});

test('the server killed in the middle of a conversation: the next start takes the address off', async () => {
  const mac = '02:00:5e:00:53:16';
  await enipDevice('e6', mac, '10.77.0.116', true);
  const at = await on.job.plan('valves-16', VALVES, 'bootp', '10.77.0.116');
  await on.job.bind(at, mac);
  const pinning = on.job.act(at, 'pin').catch(() => 'cut off');
  await until('the address is borrowed', async () => borrowedOn().includes('inet '));
  await on.server.kill();
  expect(await pinning).toBe('cut off');
  expect(borrowedOn()).toContain('inet ');
  await on.server.restart();
  await until('the address is off', async () => !borrowedOn().includes('inet '));
  await on.job.listenOn('mach0');
});

test('a pulled cable is no power cut; a device that is back after a start has kept its address', async () => {
  const mac = '02:00:5e:00:53:17';
  const device = on.wire.addDevice('e7', mac);
  const at = await on.job.plan('drive-17', DRIVE, 'dhcp-mac', '10.77.0.87');
  await on.job.bind(at, mac);
  await on.job.answer();
  expect(udhcpc(device).address).toBe('10.77.0.87');
  await on.job.seen(at, 'has-address');
  await on.job.act(at, 'watch-power');
  const phase = async () => (await on.job.field()).tasks[0]?.phase;
  await new Promise((resolve) => setTimeout(resolve, 1000));
  device.ip('addr', 'flush', 'dev', 'eth0');
  await until('it is gone', async () => (await phase()) === 'waiting-back');
  device.ip('addr', 'add', '10.77.0.87/24', 'dev', 'eth0');
  await on.job.seen(at, 'back-too-soon');
  expect((await on.job.at(at)).stage).toBe('given');

  device.ip('addr', 'flush', 'dev', 'eth0');
  await until('it is gone again', async () => (await phase()) === 'waiting-back');
  await new Promise((resolve) => setTimeout(resolve, 4500)); // the kind starts in 4 s
  device.ip('addr', 'add', '10.77.0.87/24', 'dev', 'eth0');
  await on.job.seen(at, 'kept');
  await on.job.reaches(at, 'pinned');

  // Such a drive has to say who it is, too.
  await device.startScript('enip-device.ts', ['10.77.0.87', '0', DRIVE]);
  await on.job.check(at);
  const { facts } = await on.job.seen(at, 'found-as-planned');
  expect(facts).toMatchObject({ found: mac, product: 'Pump drive D4', services: '44818 open' });
  expect(Number(facts.pingMillis)).toBeGreaterThan(0);
  await on.job.reaches(at, 'proven');
});

test('expected against found: another MAC, two at once, silence, and no ping', async () => {
  const plans = [
    ['drive-20', '10.77.0.90', '02:00:5e:00:53:20'],
    ['drive-21', '10.77.0.91', '02:00:5e:00:53:21'],
    ['drive-22', '10.77.0.92', '02:00:5e:00:53:22'],
    ['drive-23', '10.77.0.93', '02:00:5e:00:53:23'],
  ] as const;
  const ids: string[] = [];
  for (const [name, address, mac] of plans) {
    const at = await on.job.plan(name, DRIVE, 'dhcp-mac', address);
    await on.job.bind(at, mac);
    ids.push(at);
  }
  const stand = (id: string, mac: string, address: string) => {
    const device = on.wire.addDevice(id, mac);
    device.ip('addr', 'add', `${address}/24`, 'dev', 'eth0');
    return device;
  };
  stand('f0', '02:00:5e:00:53:a0', '10.77.0.90');
  stand('f1', '02:00:5e:00:53:21', '10.77.0.91');
  stand('f2', '02:00:5e:00:53:a1', '10.77.0.91');
  const mute = stand('f3', '02:00:5e:00:53:23', '10.77.0.93');
  mute.run('sysctl', '-qw', 'net.ipv4.icmp_echo_ignore_all=1');
  await mute.startScript('enip-device.ts', ['10.77.0.93', '0', DRIVE]);
  await on.job.check(...ids);
  const verdicts = await Promise.all(
    ids.map((at) =>
      until('a verdict', async () => {
        const { check } = await on.job.at(at);
        return (
          check && { kind: check.kind, what: check.facts['what'], found: check.facts['found'] }
        );
      }),
    ),
  );
  expect(verdicts[0]).toEqual({ kind: 'contradicted', what: 'mac', found: '02:00:5e:00:53:a0' });
  expect(verdicts[1]).toMatchObject({ kind: 'contradicted', what: 'several' });
  expect(String(verdicts[1]?.found).split(', ').sort()).toEqual([
    '02:00:5e:00:53:21',
    '02:00:5e:00:53:a1',
  ]);
  expect(verdicts[2]).toMatchObject({ kind: 'no-answer' });
  expect(verdicts[3]).toMatchObject({ kind: 'contradicted', what: 'no-ping' });
});
