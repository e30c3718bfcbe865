import { acts, COMMON_REFUSALS, mayRefuse, PARAMS, paramsIn, type AnyAct } from '../src';

// The contract as a whole: what holds for every act.

const all = Object.entries(acts) as readonly [string, AnyAct][];

test('no two acts have one address', () => {
  const addresses = all.map(([, { method, path }]) => `${method} ${path}`);
  expect(new Set(addresses).size).toBe(addresses.length);
});

describe.each(all)('%s', (_name, act) => {
  const params = paramsIn(act);

  test('has a sentence, and every part of its path a form', () => {
    expect(act.about).toMatch(/^[A-Z].*[.]$/);
    expect(Object.keys(PARAMS)).toEqual(expect.arrayContaining(params));
  });

  test('what only reads changes nothing, and is allowed to whoever may look; who is here is a keeper’s to see', () => {
    const isReading = act.method === 'GET';
    const isOfPeople = act.path === '/people' || act.path === '/keys';
    const readers = isOfPeople ? ['keep'] : ['look', 'door'];
    if (isReading) expect(readers).toContain(act.right);
    expect(isReading && (act.body ?? act.stale)).toBeFalsy();
  });

  test('keys and what it makes stale are made of its own parts', () => {
    const values = Object.fromEntries(params.map((name) => [name, `<${name}>`]));
    const keys = [act.key?.(values) ?? [], ...(act.stale?.(values) ?? [])];
    expect(JSON.stringify(keys)).not.toContain('null');
    for (const key of keys) expect(key).not.toContain(undefined);
  });
});

test.each([
  ['a code of a family', acts.pin, 'pin.noObject', true],
  ['a code of another family', acts.pin, 'vigil.none', false],
  ['what begins alike is no family', acts.readOff, 'reading.busy', false],
  ['what anything may be refused with', acts.pin, COMMON_REFUSALS[0] ?? '', true],
])('%s', (_what, act, code, expected) => {
  expect(mayRefuse(act, code)).toBe(expected);
});
