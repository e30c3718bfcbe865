import { expect, test } from '@playwright/test';
import { CARRIER_LAWS } from '../../wire/test/carrier-laws';
import { Wire } from './namespaces';

const OF_ADAPTERS = 'an adapter that was switched off hears and sends on when it is on again';

// The carrier of a Linux adapter, by the laws that the practice site's holds as well.

test('every law of carriers holds on a real adapter', () => {
  const wire = new Wire('ipsl');
  try {
    const alone = wire.addMachine('law');
    const held = alone.script('carrier-laws.ts', []).trim().split('\n');
    expect(held).toEqual([...CARRIER_LAWS.map(({ title }) => title), OF_ADAPTERS]);
  } finally {
    wire.takeDown();
  }
});
