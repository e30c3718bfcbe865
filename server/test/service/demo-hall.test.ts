import { applyEdits, firstDoc, planOf } from '@ipsonomo/core/plan';
import { mendAll, snagsOf } from '@ipsonomo/core/snags';
import { hallEdits } from '../../src/demo-hall';

// The hall of the demo that is still being planned: what its line builder got wrong, and nothing else.

function hall() {
  const done = applyEdits(firstDoc(), hallEdits(firstDoc()));
  if (!done.ok) throw new Error('the hall applies');
  return done.value.doc;
}

const rules = (doc: ReturnType<typeof hall>, severity: string) =>
  snagsOf(planOf(doc)).flatMap((one) => (one.severity === severity ? [one.rule] : []));

test('has the mistakes that are in it on purpose', () => {
  const doc = hall();
  expect(rules(doc, 'wrong')).toEqual([
    'S-ADDRESS-SLIP',
    'S-ADDRESS-TWICE',
    'S-HOST-NAME',
    'S-SIZE-UNITS',
    'S-SIZE-UNITS',
    'S-WAY-MISSING',
  ]);
  expect(rules(doc, 'doubtful')).toEqual([]);
});

test('is right once they are mended, but for the sizes, which only its builder knows', () => {
  const doc = hall();
  const done = applyEdits(doc, mendAll(doc, snagsOf(planOf(doc)), 0).edits);
  expect(done.ok && rules(done.value.doc, 'wrong')).toEqual(['S-SIZE-UNITS', 'S-SIZE-UNITS']);
});
