import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FORMATS, readerOf, READERS } from '@ipsonomo/core/api';
import {
  FORMAT_ABOUT,
  FORMAT_CANNOT,
  FORMAT_STANDARD,
  FORMAT_TITLES,
} from '@ipsonomo/language/hand-over-files';
import { FORMATS_WRITTEN, formatOf } from '../src';
import { device, ip, planWith, written } from './samples';

test('every format that is offered has its writer, its reader and its words, and none has two', () => {
  expect(FORMATS_WRITTEN.map(({ id }) => id).sort()).toEqual([...FORMATS].sort());
  for (const id of FORMATS) {
    expect(formatOf(id)?.id).toBe(id);
    expect(READERS).toContain(readerOf(id));
    expect(FORMAT_TITLES[id]).toMatch(/^\S/);
    expect(FORMAT_ABOUT[id]).toMatch(/\.$/);
    expect(FORMAT_STANDARD[id]).toMatch(/\S/);
    expect(FORMAT_CANNOT[id]).not.toMatch(/^\s/);
  }
});

test('the README has every format, with what it follows and what it cannot hold', () => {
  const readme = readFileSync(join(__dirname, '../../README.md'), 'utf8');
  for (const id of FORMATS)
    expect(readme).toContain(
      `| ${FORMAT_TITLES[id]} | ${FORMAT_STANDARD[id]} | ${FORMAT_CANNOT[id] || '–'} |`,
    );
});

test('a format is a folder with its writer', () => {
  const folder = join(__dirname, '../src/formats');
  for (const name of readdirSync(folder))
    expect(readdirSync(join(folder, name))).toContain('write.ts');
});

const SEALED = FORMATS.filter((id) => !id.startsWith('proof'));

test.each(SEALED)(
  '%s: a job without a device, and one without a subnet, are files like others',
  async (id) => {
    for (const plan of [
      planWith([], []),
      planWith([device('1', 'bootp', { address: ip('10.0.0.1'), subnetId: 'gone' })], []),
    ]) {
      const { files } = await written(id, plan);
      for (const { name } of files) expect(name).toMatch(/^[^/\\]+\.[a-z]+$/);
    }
  },
);

test.each(SEALED)('%s: a name that would lead out of a folder stays in it', async (id) => {
  const plan = planWith([
    device(
      '1',
      'bootp',
      { address: ip('172.22.40.9') },
      { name: '../../etc/passwd', title: 'x\n../y' },
    ),
  ]);
  const { files } = await written(id, plan, { job: '../job' });
  for (const { name } of files) expect(name).not.toMatch(/[/\\]/);
});
