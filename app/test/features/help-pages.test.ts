import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { helpOf, pageOf } from '../../src/features/help/help-of';

// Every page of a job has its help.

const ROUTES = join(__dirname, '../../src/app/job/[job]');
const routes = readdirSync(ROUTES, { recursive: true, encoding: 'utf8' })
  .filter((path) => path.endsWith('.tsx') && !/_layout|not-found|^index/.test(path))
  .map((path) => ['job', '[job]', ...path.replace(/\.tsx$/, '').split('/')]);

test.each(routes.map((segments) => [pageOf(segments)]))('%s', (page) => {
  if (page === 'help') return;
  expect(helpOf(page)).toMatch(/\w+[^.]*\./);
});

test('all of them are looked at', () => {
  expect(routes.length).toBeGreaterThan(30);
});
