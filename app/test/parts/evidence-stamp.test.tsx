import { EvidenceStamp } from '../../src/parts';
import { show } from '../world';

// What was seen or said, and when; of what was kept for want of a network, when it was done.

const said = (facts: { readonly doneAt?: number }) =>
  ({
    ...{ id: 'e', kind: 'said-kept', at: at(14, 30), mac: null, address: '172.22.40.85' },
    ...{ source: 'desk', person: 'Mara Quist', facts, again: undefined },
  }) as unknown as Parameters<typeof EvidenceStamp>[0]['evidence'];

const at = (hour: number, minute: number): number => new Date().setHours(hour, minute, 0, 0);

test.each([
  ['at once', {}, '14:30:00 · '],
  ['three hours before it was sent', { doneAt: at(11, 28) }, 'done 11:28:00, sent 14:30:00 · '],
])('what was done %s', (_when, facts, told) => {
  const { getByText } = show(<EvidenceStamp evidence={said(facts)} />);
  expect(getByText(new RegExp(`^${told}.*Mara Quist`))).toBeTruthy();
});
