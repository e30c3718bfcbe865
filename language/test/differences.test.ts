import { differencesOf } from '@ipsonomo/language';
import { applyEdits, docOfPlan, type Edit, docBefore } from '@ipsonomo/core/plan';
import { PLAN } from '../../core/test/snags/world';

const doc = docOfPlan(PLAN);
const set = (type: Edit['type'], id: string, field: string, to: never): Edit => ({
  ...{ op: 'set', type, id, field, to },
  from: (doc[type].get(id)?.[field] ?? null) as never,
});
const at = [...doc.interface.values()].find((one) => one['deviceId'] === 'drive')?.id ?? '';
const drive = doc.device.get('drive');
if (!drive) throw new Error('the plan has a drive');

test.each<[string, Edit, readonly unknown[]]>([
  [
    'an address',
    set('interface', at, 'address', '172.22.40.99' as never),
    ['address', '172.22.40.80', '172.22.40.99'],
  ],
  [
    'a kind',
    set('device', 'drive', 'kindId', 'wendle-station-20' as never),
    ['kind', expect.any(String), 'Block I/O station 20'],
  ],
  [
    'a way',
    set('device', 'drive', 'way', 'web-page' as never),
    ['way', expect.any(String), 'web page'],
  ],
  [
    'a subnet',
    set('interface', at, 'subnetId', 'feed' as never),
    ['subnet', expect.any(String), 'Feeding'],
  ],
  [
    'no controller',
    set('device', 'drive', 'controllerId', null as never),
    ['controller', expect.any(String), '–'],
  ],
  [
    'typed',
    set('device', 'drive', 'isNameTyped', true as never),
    ['name typed by hand', 'no', 'yes'],
  ],
  ['a removal', { op: 'remove', type: 'device', thing: drive }, ['', 'was there', 'removed']],
])('%s is told in words, and taken back by the edits', (_name, edit, [field, before, after]) => {
  const outcome = applyEdits(doc, [edit]);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.error));
  const { doc: next, applied } = outcome.value;
  const [told] = differencesOf(doc, next);
  expect(told).toMatchObject({ thing: String(drive['title']), field, before, after });
  const back = docBefore(next, applied);
  expect(back && differencesOf(back, doc)).toEqual([]);
});

test('edits that are not the last ones take nothing back', () => {
  const other: Edit = {
    ...{ op: 'set', type: 'device', id: 'drive', field: 'title' },
    ...{ from: 'once', to: 'elsewhere' },
  };
  expect(docBefore(doc, [other])).toBeUndefined();
});
