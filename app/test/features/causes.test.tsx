import type { EvidenceView } from '@ipsonomo/core/api';
import { CausesScreen } from '../../src/features/routes/causes/CausesScreen';
import { deviceInfo, jobView, show } from '../world';

// Why a device is not as planned: what was seen is never told as nothing, and whoever is in its place is named.

const evidence = (fields: object): EvidenceView =>
  ({
    ...{ id: '1', at: 1_000_000, person: 'Mara Quist', source: 'practice', again: null },
    ...fields,
  }) as unknown as EvidenceView;

const open = (seen: readonly EvidenceView[]) =>
  show(<CausesScreen job="job" at="at" />, {
    job: jobView([
      deviceInfo({}, { mac: '02:4c:7a:40:51:62' }),
      deviceInfo({ id: 'pump', title: 'Intake pump' }, { id: 'p', mac: '02:4c:7a:10:00:78' }),
    ]),
    evidence: seen,
  });

test('an address in other hands: by whose MAC, and whose planned one that nearly is', async () => {
  const { findByText, getByText } = open([
    evidence({ kind: 'address-taken', facts: { by: '02:4c:7a:10:00:77' } }),
  ]);
  expect(await findByText('Who has its address')).toBeTruthy();
  expect(
    getByText('02:4c:7a:10:00:77 · nobody of the plan · nearly the MAC of Intake pump'),
  ).toBeTruthy();
});

test('it is told no more once the device has its address again', () => {
  const { queryByText } = open([
    evidence({ kind: 'has-address', facts: {} }),
    evidence({ kind: 'address-taken', facts: { by: '02:4c:7a:10:00:77' } }),
  ]);
  expect(queryByText('Who has its address')).toBeNull();
});

test('what differs is said where no sign stands for it', async () => {
  const { findByText, queryByText } = open([
    evidence({
      kind: 'contradicted',
      facts: { what: 'title', expected: 'a page', found: 'another page', count: 1 },
    }),
  ]);
  expect(await findByText(/^· /)).toBeTruthy();
  expect(queryByText(/Nothing that wants an explanation/)).toBeNull();
});

test('nothing seen is nothing to explain', async () => {
  const { findByText } = open([]);
  expect(await findByText(/Nothing that wants an explanation/)).toBeTruthy();
});
