import type { ListPreview } from '@ipsonomo/core/api';
import { Preview } from '../../src/features/plan/import/Preview';
import { show } from '../world';

test('R-LIST-UPDATE: new, changed cell by cell, and gone are told before anything is taken', () => {
  const preview: ListPreview = {
    ...{ count: 3, badLines: 0, bad: [], unknownKinds: [], devices: [], wrong: 0 },
    update: {
      ...{ added: 1, same: 1, changed: 1, gone: 25 },
      changes: [
        {
          ...{ row: 0, line: 2, title: 'Pump 1' },
          cells: [{ column: 'address', from: '10.9.0.81', to: '10.9.0.91' }],
        },
      ],
      leaving: Array.from({ length: 25 }, (_, at) => `Old ${at}`),
    },
  };
  const { getByText } = show(<Preview preview={preview} />, {});
  getByText('1 new, 1 changed, 1 as they are, 25 gone from the list');
  getByText('line 2: Pump 1');
  getByText('address: 10.9.0.81 → 10.9.0.91');
  getByText(/^No line is of: Old 0, .*Old 19 and 5 more$/);
});
