import { CODE_SYSTEMS, CODES } from '@ipsonomo/core/codes';
import { CAUSES } from '@ipsonomo/core/causes';
import { toDevice, toPlan, type Connection } from '@ipsonomo/core/plan';
import { causeWords } from '../src/causes';
import { besideCode, codeWords } from '../src/codes';

// R-CODE and R-CAUSES as a person reads them.

test.each(
  CODE_SYSTEMS.flatMap((system) =>
    Object.keys(CODES[system]).map((value) => [system, Number(value)] as const),
  ),
)('%s %s is told in whole sentences', (system, value) => {
  const { means, look } = codeWords(system, value) ?? {};
  for (const sentence of [means, look]) expect(sentence).toMatch(/^[A-Z].*[.?]$/);
});

test('a code that no table has is told nothing', () => {
  expect(codeWords('modbus', 0x77)).toBeUndefined();
});

test.each(CAUSES.map(({ id }) => id))('%s has a title and a test to make', (id) => {
  const { title, test: tried } = causeWords(id);
  expect(title).toMatch(/^\S.*[^.]$/);
  expect(tried).toMatch(/^\S.*[.?]$/);
});

const end: Connection['device'] = {
  ...{ inSize: 90, outSize: 16, unitBits: '16', viewpoint: 'controller', headerBytes: 0 },
  ...{
    inInstance: 101,
    outInstance: 102,
    configInstance: 103,
    configBytes: undefined,
    intervalMillis: 20,
  },
  ...{ revision: '', register: 40001, counting: 'area-digit' },
};
const drive = toDevice({
  ...{ id: 'd', title: 'Drive', name: 'drive', kindId: 'belloch-drive-d4', way: 'keypad' },
  connection: {
    protocol: 'EtherNet/IP',
    device: end,
    controller: { ...end, unitBits: '8', inSize: 180 },
  },
});
const plan = toPlan({ devices: [drive] });

test('beside a size stands what the plan has, in one unit', () => {
  expect(besideCode(plan, drive, 'size')).toEqual([
    'The plan has 180 bytes to the controller at both ends: ask the project of the controller for its figure.',
    'The plan has 16 bytes from the controller at the controller and 32 bytes at the device.',
  ]);
});

test.each([
  ['interval', /20 ms at the controller and 20 ms at the device; such a device can keep 2 ms/],
  ['instance', /inputs 101 and 101; outputs 102 and 102; configuration 103 and 103/],
  ['owner', /names no controller/],
  ['identity', /Belloch Pump drive D4, revision 4\.02/],
  ['register', /register 40001, counted with a leading area digit/],
  ['name', /the name drive/],
] as const)('beside %s', (topic, words) => {
  expect(besideCode(plan, drive, topic).join(' ')).toMatch(words);
});
