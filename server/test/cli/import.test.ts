import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ExcelJS from 'exceljs';
import { readPlanFile } from '@ipsonomo/core/formats';
import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import { planOf } from '@ipsonomo/core/plan';
import { exportPlan } from '../../src/cli/hand-over';
import { importInto } from '../../src/cli/import';
import { asked } from './asked';

// What others give, brought into a plan from the command line.

const CAPTURE = join(__dirname, '../../../core/test/data/udhcpc-with-dnsmasq.pcap');
const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-cli-'));
const at = (name: string) => join(folder, name);
const written = (name: string, content: string | Uint8Array) => {
  writeFileSync(at(name), content);
  return at(name);
};

const imported = (...inputs: readonly string[]) => asked((output) => importInto(inputs, output));

const devicesIn = (name: string) => {
  const file = readPlanFile(readFileSync(at(name), 'utf8'));
  if (!file.ok) throw new Error(JSON.stringify(file.error));
  const { devices } = planOf(file.value.doc);
  return devices.map(({ title, interfaces: [one] }) => [
    ...[title, one ? formatIpv4(one.address) : ''],
    one?.mac === undefined ? '' : formatMac(one.mac),
  ]);
};

const VALVES = ['ox1-valves-1', '172.22.40.104', '02:00:5e:00:53:11'];

test('a capture becomes a plan; the same once more changes nothing', async () => {
  const first = await imported(CAPTURE, '--out', at('cell.json'));
  expect([first.isGood, first.told]).toEqual([
    true,
    ['1 new device, 3 changes of the plan in all.'],
  ]);
  expect(devicesIn('cell.json')).toContainEqual(VALVES);
  const again = await imported(CAPTURE, '--into', at('cell.json'), '--out', at('again.json'));
  expect(again.told).toEqual(['0 new devices, 0 changes of the plan in all.']);
  expect(again.printed).toEqual([
    expect.objectContaining({ verdict: 'as-planned', address: '172.22.40.104' }),
    expect.objectContaining({ verdict: 'infrastructure', address: '172.22.40.250' }),
  ]);
  expect(readFileSync(at('again.json'))).toEqual(readFileSync(at('cell.json')));
});

test('what is there otherwise is a line each, and stays as it is planned', async () => {
  await imported(CAPTURE, '--out', at('cell.json'));
  const list = written('neigh.txt', '172.22.40.104 dev eth0 lladdr 02:00:5e:00:53:99 STALE\n');
  const { printed } = await imported(list, '--into', at('cell.json'), '--out', at('after.json'));
  expect(printed).toEqual([
    {
      ...{ verdict: 'other-mac', address: '172.22.40.104', mac: '02:00:5e:00:53:99', name: '' },
      planned: { device: VALVES[0], address: '172.22.40.104' },
    },
  ]);
  expect(devicesIn('after.json')).toEqual(devicesIn('cell.json'));
});

test('a list of devices is brought up to date: as CSV that we wrote ourselves, and as a workbook', async () => {
  await imported(CAPTURE, '--out', at('cell.json'));
  await exportPlan([at('cell.json'), '--as', 'csv', '--out', at('list.csv')], {
    print: () => undefined,
    tell: () => undefined,
  });
  const csv = readFileSync(at('list.csv'), 'utf8');
  const same = await imported(at('list.csv'), '--into', at('cell.json'));
  expect(same.told[0]).toMatch(/^0 new devices/);
  written('list.csv', csv.replaceAll('172.22.40.104', '172.22.40.105'));
  const changed = await imported(
    at('list.csv'),
    '--into',
    at('cell.json'),
    '--out',
    at('new.json'),
  );
  expect(changed.isGood).toBe(true);
  expect(devicesIn('new.json')).toContainEqual([VALVES[0], '172.22.40.105', VALVES[2]]);
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Devices');
  sheet.addRow(['device', 'address']);
  sheet.addRow(['Pump 7', '172.22.40.77']);
  await book.xlsx.writeFile(at('list.xlsx'));
  await imported(at('list.xlsx'), '--into', at('cell.json'), '--out', at('more.json'));
  expect(devicesIn('more.json')).toContainEqual(['Pump 7', '172.22.40.77', '']);
});

test.each([
  ['no file', () => at('none'), /There is no file/],
  ['a text that says nothing', () => written('a.txt', 'hello\n'), /./],
  ['a capture of Wi-Fi', () => written('w.pcap', wifi()), /not captured on Ethernet/],
])('%s is told, and nothing is written', async (_name, path, sentence) => {
  const { isGood, told } = await imported(path(), '--out', at('never.json'));
  expect(isGood).toBe(false);
  expect(told.join(' ')).toMatch(sentence);
  expect(() => readFileSync(at('never.json'))).toThrow();
});

function wifi(): Uint8Array {
  const bytes = new Uint8Array(readFileSync(CAPTURE));
  bytes[20] = 105;
  return bytes;
}
