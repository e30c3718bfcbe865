import { formatMac, must, parseIpv4, parseMac } from '../../src/net';
import { judgeRead, labelsIn, readValues, typingSlip } from '../../src/plan';

const planned = {
  address: must(parseIpv4('172.22.40.151')),
  mac: must(parseMac('02:4c:7a:90:3a:c4')),
};

// The slips of a hand are common practice, no source.
test.each([
  ['172.22.40.115', 'swapped'],
  ['172.22.40.51', 'lost'],
  ['172.22.40.15', 'lost'],
  ['172.22.400.151', 'spare'],
  ['172.22.40.157', 'digit'],
  ['172.22.41.151', 'digit'],
  ['172.22.04.151', 'swapped'],
  ['172.22.40.151', undefined],
  ['10.0.0.1', undefined],
  ['172.22.40.7', undefined],
  ['', undefined],
])('%s typed for 172.22.40.151: %s', (typed, slip) => {
  expect(typingSlip(typed, '172.22.40.151')).toBe(slip);
});

describe('what can be picked out of a page', () => {
  test.each([
    ['MAC 02-4C-7A-90-3A-C4', [0x024c7a903ac4], [], undefined, undefined],
    ['024c.7a90.3ac4', [0x024c7a903ac4], [], undefined, undefined],
    ['024C7A903AC4', [0x024c7a903ac4], [], undefined, undefined],
    ['FF:FF:FF:FF:FF:FF and 01:00:5e:00:00:01', [], [], undefined, undefined],
    [
      'In use: 172.22.40.151\nMask 255.255.255.0',
      [],
      ['172.22.40.151', '255.255.255.0'],
      undefined,
      undefined,
    ],
    ['version 1.2.3.4.5', [], [], undefined, undefined],
    ['172.22.40.300', [], [], undefined, undefined],
    ['Serial number\tS903AC4', [], [], 'S903AC4', undefined],
    ['Serial No.: 00-1234/b', [], [], '00-1234/b', undefined],
    ['Firmware\t1.0.4', [], [], undefined, '1.0.4'],
    ['FW revision: v2.17-rc1', [], [], undefined, 'v2.17-rc1'],
    ['nothing of use', [], [], undefined, undefined],
  ])('%s', (text, macs, addresses, serial?: string, firmware?: string) => {
    expect(readValues(text)).toEqual({
      ...{ macs, serial, firmware },
      addresses: (addresses as string[]).map((one) => must(parseIpv4(one))),
    });
  });
});

test('the MACs of a label: from codes with or without other words, each once', () => {
  const texts = [
    '024C7A903AC4',
    'MAC:02-4C-7A-90-3A-C5;SN:1234567890123',
    'P/N 4711',
    '024C7A903AC4',
  ];
  expect(labelsIn(texts).map(formatMac)).toEqual(['02:4c:7a:90:3a:c4', '02:4c:7a:90:3a:c5']);
});

describe('R-READ-OFF: held against the plan', () => {
  test.each([
    ['the planned address', '172.22.40.151', undefined, true, undefined],
    ['two digits swapped', '172.22.40.115', undefined, false, 'swapped'],
    ['the MAC alone', '02 4C 7A 90 3A C4 / 02-4c-7a-90-3a-c4', 'same', false, undefined],
    ['its second port', '02-4c-7a-90-3a-c5', 'near', false, undefined],
    ['a worn letter', '02-4c-7a-98-3a-c4', 'other', false, undefined],
    ['the nearest of several', '02:00:00:00:00:01 02:4c:7a:90:3a:c4', 'same', false, undefined],
    ['another device', '02:4c:7a:71:00:21 172.22.40.151', 'other', true, undefined],
  ])('%s', (_what, text, mac, hasPlanned, slip) => {
    const read = judgeRead(text, planned);
    expect([read.mac?.kind, read.hasPlanned, read.slip]).toEqual([mac, hasPlanned, slip]);
  });

  test('with no MAC bound there is nothing to hold a MAC against', () => {
    expect(judgeRead('02:4c:7a:90:3a:c4', { ...planned, mac: undefined }).mac).toBeUndefined();
  });
});
