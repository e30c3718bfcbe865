import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

const UNIT = join(__dirname, '../../deploy/ipsonomo.service');
/** Of 10; systemd itself calls what is below 4 medium, below 2.5 OK. */
const MOST_EXPOSED = 2.5;

test('systemd finds the unit hardly exposed', () => {
  const { stdout, stderr } = spawnSync(
    'systemd-analyze',
    ['security', '--offline=true', '--no-pager', UNIT],
    { encoding: 'utf8' },
  );
  const level = /Overall exposure level for ipsonomo\.service: ([\d.]+)/.exec(stdout)?.[1];
  expect([stderr, Number(level)]).toEqual(['', expect.any(Number)]);
  expect(Number(level)).toBeLessThanOrEqual(MOST_EXPOSED);
});
