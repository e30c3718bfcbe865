import { generateKeyPairSync, sign } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writePlanFile } from '@ipsonomo/core/formats';
import { must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { docOfPlan, toDevice, toInterface, toPlan, toSubnet } from '@ipsonomo/core/plan';
import { formatOf, materialOf } from '@ipsonomo/handover';
import { exportPlan, verify } from '../../src/cli/hand-over';
import { asked } from './asked';

// A plan in the formats of others, and a proof looked at, from the command line.

const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-cli-'));
const plan = toPlan({
  subnets: [
    toSubnet({
      ...{ id: 's', name: 'Hall', prefix: must(parsePrefix('10.9.0.0/24')) },
      dnsSuffix: 'hall.example',
    }),
  ],
  devices: [
    toDevice({
      ...{ id: 'd', title: 'Valve', name: 'vb-1', kindId: 'k', way: 'bootp' },
      interfaces: [
        toInterface({
          id: 'i',
          deviceId: 'd',
          subnetId: 's',
          address: must(parseIpv4('10.9.0.7')),
        }),
      ],
    }),
  ],
});
const path = join(folder, 'Plant.json');
writeFileSync(path, writePlanFile({ name: 'Plant', doc: docOfPlan(plan) }));

const exported = (...inputs: readonly string[]) =>
  asked((output) => exportPlan([path, ...inputs], output));

test.each([
  ['hosts', 'hosts.txt', /10\.9\.0\.7\tvb-1\.hall\.example vb-1/],
  ['csv', 'a.csv', /^device,host name/],
  ['dhcpd', 'dhcpd.conf', /subnet 10\.9\.0\.0 netmask/],
  ['nftables', 'fw.nft', /policy drop/],
])('export --as %s writes what is read elsewhere', async (word, name, wanted) => {
  const out = join(folder, name);
  expect((await exported('--as', word, '--out', out)).isGood).toBe(true);
  expect(readFileSync(out, 'utf8')).toMatch(wanted);
});

test('what a format cannot hold is told; several files want a folder; a word that is none is refused', async () => {
  const kea = await exported('--as', 'kea', '--out', join(folder, 'kea.json'));
  expect(kea).toMatchObject({ isGood: true, told: ['Valve, 10.9.0.7: no MAC is bound yet'] });
  expect((await exported('--as', 'zone')).isGood).toBe(false);
  expect((await exported('--as', 'zone', '--out', join(folder, 'zones'))).isGood).toBe(true);
  expect(readdirSync(join(folder, 'zones'))).toContain('hall.example.zone');
  expect(await exported('--as', 'papyrus')).toMatchObject({ isGood: false });
  const gone = await asked((output) =>
    exportPlan([join(folder, 'gone.json'), '--as', 'hosts'], output),
  );
  expect(gone.isGood).toBe(false);
});

test('verify says what a proof shows and what it does not, and names what was changed', async () => {
  const { privateKey, publicKey } = generateKeyPairSync('ed25519');
  const record = {
    ...{ evidence: [], revisions: [] },
    publicKey: publicKey.export({ type: 'spki', format: 'pem' }).toString(),
    sign: (bytes: Uint8Array) => new Uint8Array(sign(null, bytes, privateKey)),
  };
  const material = materialOf({ job: 'Plant', revision: 1, at: 0, plan, record });
  const files = (await formatOf('proof-json')?.write(material))?.files ?? [];
  for (const { name, content } of files) writeFileSync(join(folder, name), content);
  const proof = join(folder, files[0]?.name ?? '');
  const good = await asked((output) => verify([proof], output));
  expect(good.isGood).toBe(true);
  expect(good.told.join('\n')).toMatch(/It does not show that this key is the installation’s/);
  const head = (good.printed[0] as { head: string }).head;
  expect((await asked((output) => verify([proof, head], output))).isGood).toBe(true);
  const other = await asked((output) => verify([proof, head.replace(/^./, 'x')], output));
  expect(other.isGood).toBe(false);
  writeFileSync(proof, readFileSync(proof, 'utf8').replace('Valve', 'Volve'));
  const changed = await asked((output) => verify([proof, head], output));
  expect(changed.isGood).toBe(false);
  expect(changed.told.join('\n')).toMatch(
    /the report or a chain was changed[\s\S]*signature does not fit/,
  );
  expect((await asked((output) => verify([join(folder, 'gone')], output))).isGood).toBe(false);
  expect(existsSync(join(folder, 'gone'))).toBe(false);
});
