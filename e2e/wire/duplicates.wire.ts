import { expect, test } from '@playwright/test';
import type { PresentView } from '@ipsonomo/core/api';
import { differencesIn } from '@ipsonomo/core/proof';
import { api } from '../harness';
import { onWire } from './on-wire';

// The same address claimed by two MACs on a real wire: found by asking again and again, and not from the system's table.
// arping and arp-scan of Debian's packages, asked on the same wire, see the same two.

const on = onWire('ipsd');
const ONE = '02:00:5e:00:53:a1';
const OTHER = '02:00:5e:00:53:a2';
const AT = '10.77.0.50';

const macsIn = (text: string): readonly string[] =>
  [
    ...new Set(
      [...text.matchAll(/(?:[0-9a-f]{2}:){5}[0-9a-f]{2}/gi)].map(([mac]) => mac.toLowerCase()),
    ),
  ]
    .filter((mac) => mac !== '02:00:5e:00:53:f0' && mac !== 'ff:ff:ff:ff:ff:ff')
    .toSorted();

test('two devices with one address are both found, as arping and arp-scan find them', async () => {
  const at = await on.job.plan('pump', 'belloch-drive-d4', 'keypad', AT);
  await on.job.bind(at, ONE);
  for (const [id, mac] of [
    ['one', ONE],
    ['two', OTHER],
  ] as const) {
    const device = on.wire.addDevice(id, mac);
    device.ip('addr', 'add', `${AT}/24`, 'dev', 'eth0');
  }
  await on.job.check(at);
  const contradicted = await on.job.seen(at, 'contradicted');
  const [difference] = differencesIn(contradicted.facts);
  expect(difference?.what).toBe('several');
  expect(macsIn(difference?.found ?? '')).toEqual([ONE, OTHER]);

  // A sweep sees both too.
  await api(on.server, 'POST', `/jobs/${on.job.id}/sweep`);
  const present = await api<PresentView[]>(on.server, 'GET', on.job.wire('/present'));
  const swept = present.filter(({ address }) => address === AT).map(({ mac }) => mac);
  expect(swept.toSorted()).toEqual([ONE, OTHER]);

  on.wire.laptop.ip('addr', 'add', '10.77.0.9/24', 'dev', 'mach0');
  const arping = on.wire.laptop.run('arping', '-c', '3', '-i', 'mach0', AT);
  expect(macsIn(arping.out)).toEqual([ONE, OTHER]);
  const scan = on.wire.laptop.run('arp-scan', '-I', 'mach0', '-r', '2', AT);
  expect(macsIn(scan.out.replace(/^Interface.*$/m, ''))).toEqual([ONE, OTHER]);
  on.wire.laptop.ip('addr', 'flush', 'dev', 'mach0');
});
