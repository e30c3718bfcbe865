import type { JobView } from '@ipsonomo/core/api';
import { whoIsThere } from '../../src/features/wire/who-is-there';

const device = (title: string, address: string, mac: string | null) => ({
  ...{ id: title, title, interfaces: [{ id: `${title}-at`, address, mac, askedBy: null }] },
});

const view = {
  subnets: [{ name: 'Hall', gateway: '10.0.0.1' }],
  devices: [
    device('camera', '10.0.0.5', '02:00:00:00:00:05'),
    device('drive', '10.0.0.6', '02:00:00:00:00:06'),
    device('scale', '10.0.0.7', null),
  ],
} as unknown as JobView;

const at = (mac: string, address: string, lastAt = 0) => ({ mac, address, lastAt });
const field = { voices: [{ subnetId: 'hall', address: '10.0.0.250', state: 'ready' as const }] };

test.each([
  ['nobody', [], [0, [], []]],
  ['one where it should be', [at('02:00:00:00:00:05', '10.0.0.5')], [1, [], []]],
  ['one elsewhere', [at('02:00:00:00:00:06', '192.168.77.10')], [0, ['drive 192.168.77.10'], []]],
  [
    'one that has moved: where it was last counts',
    [at('02:00:00:00:00:06', '192.168.77.10'), at('02:00:00:00:00:06', '10.0.0.6', 5)],
    [1, [], []],
  ],
  ['a stranger', [at('02:00:00:00:00:99', '10.0.0.9')], [0, [], ['02:00:00:00:00:99 -']]],
  [
    'a stranger at the address of one without a MAC',
    [at('02:00:00:00:00:99', '10.0.0.7')],
    [0, [], ['02:00:00:00:00:99 scale']],
  ],
  [
    'the gateway of a subnet',
    [at('02:00:00:00:00:01', '10.0.0.1')],
    [0, [], ['02:00:00:00:00:01 the gateway of Hall']],
  ],
  ['ourselves', [at('02:00:5e:00:53:f0', '10.0.0.250')], [0, [], []]],
])('%s', (_what, present, expected) => {
  const found = whoIsThere(view, present, field);
  expect([
    found.asPlanned,
    found.elsewhere.map(({ device: one, seen }) => `${one.title} ${seen.address}`),
    found.strangers.map(({ mac, mayBe }) => `${mac} ${mayBe ?? '-'}`),
  ]).toEqual(expected);
});
