import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { placeOfPath, PLACES } from '../../src/screens/frame/place-of';

test('each page of a job belongs to a place, or to the wire; none is named that there is not', () => {
  const pages = readdirSync(join(__dirname, '../../src/app/job/[job]'))
    .map((name) => name.replace(/\.tsx$/, ''))
    .filter((name) => !/^[_+]|^index$/.test(name));
  expect(Object.keys(PLACES).sort()).toEqual(pages.sort());
});

test.each([
  ['/job/7/plan', 'plan'],
  ['/job/7/call/3', 'assign'],
  ['/job/7/vigil', 'prove'],
  ['/job/7/wire', undefined],
  ['/job/7', undefined],
])('%s is of %s', (path, place) => expect(placeOfPath(path)).toBe(place));
