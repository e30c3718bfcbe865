import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ExcelJS from 'exceljs';
import { readPlanFile } from '@ipsonomo/core/formats';
import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import { planOf } from '@ipsonomo/core/plan';
import { exportPlan } from '../../src/cli/hand-over';
import { importInto } from '../../src/cli/import';

// What others give, brought into a plan from the command line.

const CAPTURE = join(__dirname, '../../../core/test/data/udhcpc-with-dnsmasq.pcap');
const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-cli-'));
const at = (name: string) => join(folder, name);
const written = (name: string, content: string | Uint8Array) => {
  writeFileSync(at(name), content);
  return at(name);
};

async function asked(...inputs: readonly string[]) {
  const printed: unknown[] = [];
  const told: string[] = [];
  const isGood = await importInto(inputs, {
    print: (line) => void printed.push(line),
    tell: (sentence) => void told.push(sentence),
  });
  return { isGood, printed, told };
}

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
  const first = await asked(CAPTURE, '--out', at('cell.json'));
  expect([first.isGood, first.told]).toEqual([
    true,
    ['1 new device, 3 changes of the plan in all.'],
  ]);
  expect(devicesIn('cell.json')).toContainEqual(VALVES);
  const again = await asked(CAPTURE, '--into', at('cell.json'), '--out', at('again.json'));
  expect(again.told).toEqual(['0 new devices, 0 changes of the plan in all.']);
  expect(again.printed).toEqual([
    expect.objectContaining({ verdict: 'as-planned', address: '172.22.40.104' }),
    expect.objectContaining({ verdict: 'infrastructure', address: '172.22.40.250' }),
  ]);
  expect(readFileSync(at('again.json'))).toEqual(readFileSync(at('cell.json')));
});

test('what is there otherwise is a line each, and stays as it is planned', async () => {
  await asked(CAPTURE, '--out', at('cell.json'));
  const list = written('neigh.txt', '172.22.40.104 dev eth0 lladdr 02:00:5e:00:53:99 STALE\n');
  const { printed } = await asked(list, '--into', at('cell.json'), '--out', at('after.json'));
  expect(printed).toEqual([
    {
      ...{ verdict: 'other-mac', address: '172.22.40.104', mac: '02:00:5e:00:53:99', name: '' },
      planned: { device: VALVES[0], address: '172.22.40.104' },
    },
  ]);
  expect(devicesIn('after.json')).toEqual(devicesIn('cell.json'));
});

test('a list of devices is brought up to date: as CSV that we wrote ourselves, and as a workbook', async () => {
  await asked(CAPTURE, '--out', at('cell.json'));
  await exportPlan([at('cell.json'), '--as', 'csv', '--out', at('list.csv')], {
    print: () => undefined,
    tell: () => undefined,
  });
  const csv = readFileSync(at('list.csv'), 'utf8');
  const same = await asked(at('list.csv'), '--into', at('cell.json'));
  expect(same.told[0]).toMatch(/^0 new devices/);
  written('list.csv', csv.replaceAll('172.22.40.104', '172.22.40.105'));
  const changed = await asked(at('list.csv'), '--into', at('cell.json'), '--out', at('new.json'));
  expect(changed.isGood).toBe(true);
  expect(devicesIn('new.json')).toContainEqual([VALVES[0], '172.22.40.105', VALVES[2]]);
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Devices');
  sheet.addRow(['device', 'address']);
  sheet.addRow(['Pump 7', '172.22.40.77']);
  await book.xlsx.writeFile(at('list.xlsx'));
  await asked(at('list.xlsx'), '--into', at('cell.json'), '--out', at('more.json'));
  expect(devicesIn('more.json')).toContainEqual(['Pump 7', '172.22.40.77', '']);
});

test.each([
  ['no file', () => at('none'), /There is no file/],
  ['a text that says nothing', () => written('a.txt', 'hello\n'), /./],
  ['a capture of Wi-Fi', () => written('w.pcap', wifi()), /not captured on Ethernet/],
])('%s is told, and nothing is written', async (_name, path, sentence) => {
  const { isGood, told } = await asked(path(), '--out', at('never.json'));
  expect(isGood).toBe(false);
  expect(told.join(' ')).toMatch(sentence);
  expect(() => readFileSync(at('never.json'))).toThrow();
});

function wifi(): Uint8Array {
  const bytes = new Uint8Array(readFileSync(CAPTURE));
  bytes[20] = 105;
  return bytes;
}
