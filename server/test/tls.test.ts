import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Authority } from '../src/tls/authority';

// The authority of an installation, and what it vouches for: read by openssl, which knows nothing of how it was made.

const DAY = 86_400_000;
const NAMES = { dns: ['cell-laptop', 'cell-laptop.local'], ip: ['192.168.77.5', '127.0.0.1'] };
let now = Date.now();
const clock = () => now;
const folder = () => mkdtempSync(join(tmpdir(), 'ipsonomo-authority-'));
const open = (at: string) => Authority.open(at, 'Ipsonomo on cell-laptop', clock);

/** Both as files, for openssl. */
function written(
  at: string,
  authority: Authority,
  cert: Buffer,
): readonly [ca: string, leaf: string] {
  const [der, ca, leaf] = ['ca.der', 'ca.pem', 'leaf.pem'].map((name) => join(at, name));
  writeFileSync(der ?? '', authority.der);
  execFileSync('openssl', ['x509', '-inform', 'DER', '-in', der ?? '', '-out', ca ?? '']);
  writeFileSync(leaf ?? '', cert);
  return [ca ?? '', leaf ?? ''];
}
const openssl = (...args: readonly string[]) => execFileSync('openssl', args).toString();

beforeEach(() => {
  now = Date.now();
});

test('openssl takes its certificate for this machine, by name and by address, and for no other', async () => {
  const at = folder();
  const authority = await open(at);
  const { cert, key } = await authority.certificateFor(NAMES);
  const [ca, leaf] = written(at, authority, cert);
  for (const host of [
    ...NAMES.dns.map((name) => ['-verify_hostname', name]),
    ...NAMES.ip.map((ip) => ['-verify_ip', ip]),
  ])
    expect(
      openssl('verify', '-x509_strict', '-purpose', 'sslserver', '-CAfile', ca, ...host, leaf),
    ).toContain('OK');
  expect(() =>
    execFileSync('openssl', ['verify', '-CAfile', ca, '-verify_ip', '192.168.77.6', leaf], {
      stdio: 'ignore',
    }),
  ).toThrow();
  const said = openssl('x509', '-in', leaf, '-noout', '-text');
  expect(said).toMatch(/CA:FALSE/);
  expect(said).toMatch(/TLS Web Server Authentication/);
  const days =
    (Date.parse(openssl('x509', '-in', leaf, '-noout', '-enddate').split('=')[1] ?? '') - now) /
    DAY;
  expect(days).toBeGreaterThan(390);
  expect(days).toBeLessThan(398);
  // The key is the certificate's.
  writeFileSync(join(at, 'leaf.key'), key);
  expect(openssl('pkey', '-in', join(at, 'leaf.key'), '-pubout')).toBe(
    openssl('x509', '-in', leaf, '-noout', '-pubkey'),
  );
  expect(await authority.fingerprint()).toBe(
    openssl('x509', '-in', ca, '-noout', '-fingerprint', '-sha256').trim().split('=')[1],
  );
});

test('it vouches for machines and for no other authority; its key is its owner’s alone', async () => {
  const at = folder();
  const authority = await open(at);
  const [ca] = written(at, authority, Buffer.from(''));
  const said = openssl('x509', '-in', ca, '-noout', '-text');
  expect(said).toMatch(/CA:TRUE, pathlen:0/);
  expect(said).toMatch(/Certificate Sign, CRL Sign/);
  expect(statSync(join(at, 'authority.pem')).mode & 0o777).toBe(0o600);
});

test('it stays the same; the machine’s is made anew before it ends, and where the machine has another address', async () => {
  const at = folder();
  const first = await (await open(at)).certificateFor(NAMES);
  const again = await open(at);
  expect(await again.certificateFor(NAMES)).toEqual(first);
  // An address less is no reason.
  expect(await again.certificateFor({ ...NAMES, ip: ['127.0.0.1'] })).toEqual(first);
  const moved = await again.certificateFor({ ...NAMES, ip: ['10.1.2.3'] });
  expect(moved.cert).not.toEqual(first.cert);
  now += 360 * DAY;
  expect(await again.certificateFor({ ...NAMES, ip: ['10.1.2.3'] })).toEqual(moved);
  now += 10 * DAY;
  expect(await again.certificateFor({ ...NAMES, ip: ['10.1.2.3'] })).not.toEqual(moved);
  expect((await open(at)).der).toEqual(again.der);
});

test('a file that was spoilt is made anew', async () => {
  const at = folder();
  const first = await (await open(at)).certificateFor(NAMES);
  writeFileSync(join(at, 'machine.pem'), readFileSync(join(at, 'machine.pem')).subarray(0, 300));
  const again = await (await open(at)).certificateFor(NAMES);
  expect(again.cert).not.toEqual(first.cert);
});
