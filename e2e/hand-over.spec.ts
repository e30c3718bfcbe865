import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { expect } from '@playwright/test';
import JSZip from 'jszip';
import Papa from 'papaparse';
import * as SheetJS from 'xlsx';
import { verifyProof } from '@ipsonomo/handover';
import { run } from '../handover/test/run';
import { test } from './demo';
import { button, leaveAllTheSame, openDemo, place, saved } from './pages';

// From a job to the ZIP of everything, whose parts are opened by the programs that their readers use.

/** Unpacks it. @returns every file by its name, with where it lies */
async function unpacked(path: string): Promise<ReadonlyMap<string, string>> {
  const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-zip-'));
  const zip = await JSZip.loadAsync(readFileSync(path));
  const files = new Map<string, string>();
  for (const [name, entry] of Object.entries(zip.files)) {
    if (entry.dir) continue;
    const to = join(folder, name);
    mkdirSync(dirname(to), { recursive: true });
    writeFileSync(to, await entry.async('nodebuffer'));
    files.set(name, to);
  }
  return files;
}

test('everything as one ZIP, opened by the programs of its readers', async ({ page, server }) => {
  await openDemo(page, server);
  await place(page, 'Hand over').click();
  await expect(button(page, 'Take everything as one ZIP')).toBeDisabled();
  await leaveAllTheSame(page);
  await button(page, 'Take everything as one ZIP').click();
  await expect(page.getByText(/^Writing \d+ of \d+:/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Save .*\.zip$/ })).toBeVisible({
    timeout: 90_000,
  });
  const files = await unpacked(await saved(page, /^Save .*\.zip$/));
  const fileOf = (pattern: RegExp): string => {
    const name = [...files.keys()].find((one) => pattern.test(one));
    if (name === undefined) throw new Error(`no ${pattern} in ${[...files.keys()].join(', ')}`);
    return files.get(name) ?? '';
  };
  const checks: readonly (readonly [string, ...string[]])[] = [
    ['dnsmasq', '--test', `--conf-file=${fileOf(/dnsmasq.*\.conf$/)}`],
    ['dhcpd', '-4', '-t', '-cf', fileOf(/dhcpd.*\.conf$/), '-lf', '/dev/null'],
    ['kea-dhcp4', '-t', fileOf(/kea.*\.json$/)],
    ['unshare', '-rn', 'nft', '-c', '-f', fileOf(/\.nft$/)],
    ...[/labels.*\.pdf$/, /swap cards.*\.pdf$/, /cabinet sheets.*\.pdf$/, /proof.*\.pdf$/].map(
      (pattern) => ['pdfinfo', fileOf(pattern)] as const,
    ),
    [
      ...(['openssl', 'pkeyutl', '-verify', '-pubin', '-rawin'] as const),
      ...['-inkey', fileOf(/\.key\.pem$/), '-in', fileOf(/proof[^/]*\.json$/)],
      ...['-sigfile', fileOf(/\.json\.sig$/)],
    ],
  ];
  for (const [command, ...args] of checks) {
    const { status, out } = run(command, ...args);
    expect([command, status, status === 0 ? '' : out]).toEqual([command, 0, '']);
  }
  const csv = Papa.parse<Record<string, string>>(
    readFileSync(fileOf(/addresses.*\.csv$/), 'utf8'),
    { header: true, skipEmptyLines: true },
  );
  expect(csv.errors).toEqual([]);
  const book = SheetJS.read(readFileSync(fileOf(/addresses.*\.xlsx$/)));
  const [sheet] = Object.values(book.Sheets);
  const rows = SheetJS.utils.sheet_to_json<Record<string, unknown>>(sheet ?? {});
  expect(rows.map((row) => row['address'])).toEqual(csv.data.map((row) => row['address']));
  const report = verifyProof(
    readFileSync(fileOf(/proof[^/]*\.json$/)),
    readFileSync(fileOf(/\.json\.sig$/)),
    // The head as it stands on paper.
    /^(?:[0-9a-f]{8} ){7}[0-9a-f]{8}$/m.exec(
      run('pdftotext', fileOf(/proof.*\.pdf$/), '-').out,
    )?.[0],
  );
  expect(report.faults).toEqual([]);
  expect(
    run('sh', '-c', `cd "${dirname(fileOf(/SHA256SUMS/))}" && sha256sum -c SHA256SUMS`).status,
  ).toBe(0);
  // Each of them was handed over now.
  await expect(page.getByText(/Mara Quist · nothing changed since/)).toHaveCount(4);
});
