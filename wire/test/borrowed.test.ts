import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { Borrowings } from '../src/carriers/linux/borrowed';

// The kernel's own refusal, each command slow: a route from an address that is not on is refused.

const FROM = '10.77.0.250';
let folder: string;
beforeEach(() => void (folder = mkdtempSync(join(tmpdir(), 'borrowed-'))));
afterEach(() => rmSync(folder, { recursive: true }));

function adapter() {
  const addresses = new Set<string>();
  const routes = new Set<string>();
  const ip = async (what?: string, verb?: string, value = '', ...rest: string[]) => {
    await sleep(2 + (Number(value.match(/\.(\d+)\//)?.[1] ?? 0) % 3));
    if (what === 'addr') return verb === 'add' ? addresses.add(value) : addresses.delete(value);
    if (verb === 'del') return routes.delete(value);
    const from = `${rest[rest.indexOf('src') + 1]}/32`;
    if (!addresses.has(from)) throw new Error('RTNETLINK answers: Invalid argument');
    return routes.add(value);
  };
  return { addresses, routes, borrowings: new Borrowings(join(folder, 'undo.json'), ip) };
}

const wish = (host: number) => ({
  adapter: 'mach0',
  address: FROM,
  target: `10.77.0.${host}`,
});

test('two that borrow one address at once both have it, and it goes with the last', async () => {
  const { addresses, routes, borrowings } = adapter();
  const [one, two] = await Promise.all([borrowings.borrow(wish(1)), borrowings.borrow(wish(2))]);
  expect([...addresses]).toEqual([`${FROM}/32`]);
  expect(routes.size).toBe(2);
  await borrowings.giveBack(one);
  expect(addresses.size).toBe(1);
  await borrowings.giveBack(two);
  expect([addresses.size, routes.size]).toEqual([0, 0]);
});

test('many that come and leave together leave nothing', async () => {
  const { addresses, routes, borrowings } = adapter();
  await Promise.all(
    [1, 2, 3, 4, 5, 6].map(async (host) => {
      const one = await borrowings.borrow(wish(host));
      await borrowings.giveBack(one);
    }),
  );
  expect([addresses.size, routes.size]).toEqual([0, 0]);
});

test('one that is refused holds up nobody behind it', async () => {
  const refusing = new Borrowings(join(folder, 'undo.json'), (what, verb, value) =>
    value === '10.77.0.1/32' && verb === 'replace'
      ? Promise.reject(new Error('refused'))
      : Promise.resolve(),
  );
  const both = await Promise.allSettled([refusing.borrow(wish(1)), refusing.borrow(wish(2))]);
  expect(both.map((one) => one.status)).toEqual(['rejected', 'fulfilled']);
});
