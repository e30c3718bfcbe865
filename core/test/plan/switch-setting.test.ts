import { switchWords } from '@ipsonomo/language';
import { formatIpv4, must, parseIpv4, parsePrefix } from '../../src/net';
import { SHELF, toDevice, wantedSetting, type Way } from '../../src/plan';
import type { SwitchFace } from '../../src/switches';

// How switches must stand for each way, and what they say then. The kinds are invented; that a code
// means "ask" and a dial may choose a name is common practice, no source.

const NET = must(parsePrefix('172.22.40.0/24'));
const AT = must(parseIpv4('172.22.40.86'));

function faceOf(id: string): SwitchFace {
  const face = SHELF.find((kind) => kind.id === id)?.switches;
  if (!face) throw new Error(`${id} has no switches`);
  return face;
}

test.each<[kind: string, way: Way, name: string, positions: string, words: string]>([
  ['wendle-station-20', 'switches', 's', '086', 'Its address is 172.22.40.86.'],
  ['wendle-station-20', 'bootp', 's', '000', 'It asks for its address by BootP.'],
  ['wendle-station-20', 'dhcp-mac', 's', '999', 'It asks for its address by DHCP.'],
  ['wendle-station-20', 'web-page', 's', '901', 'It uses the address that is stored in it.'],
  ['hartsop-drive-h', 'switches', 's', '56', 'Its address is 172.22.40.86.'],
  ['corrigall-gateway-2', 'switches', 's', '01101010', 'Its address is 172.22.40.86.'],
  ['strathan-terminal-4', 'switches', 's', '186', 'Its address is 172.22.40.86.'],
  [
    'strathan-terminal-4',
    'dhcp-name',
    'terminal4-007',
    '207',
    'It goes by the name terminal4-007.',
  ],
  ['strathan-terminal-4', 'layer2-name', 'a-1', '000', 'It uses the address that is stored in it.'],
])('%s by %s', (id, way, name, positions, words) => {
  const face = faceOf(id);
  const device = toDevice({ id: 'd', title: 'D', name, kindId: id, way });
  const setting = must(wantedSetting(face, device, AT, NET));
  expect(setting.positions.map((one) => one.toString(16)).join('')).toBe(positions);
  expect(switchWords(face, setting, NET)).toBe(words);
});

test.each<[kind: string, way: Way, code: string, where: string]>([
  ['strathan-terminal-4', 'dhcp-name', 'switches.never', 'the name valves-1'],
  ['strathan-terminal-4', 'bootp', 'switches.never', 'asking by BootP'],
  ['hartsop-drive-h', 'switches', 'switches.base', '172.22.41.86'],
])('%s cannot by %s', (id, way, code, where) => {
  const device = toDevice({ id: 'd', title: 'D', name: 'valves-1', kindId: id, way });
  const address = code === 'switches.base' ? must(parseIpv4('172.22.41.86')) : AT;
  const setting = wantedSetting(faceOf(id), device, address, NET);
  expect(setting).toMatchObject({ ok: false, error: { code, where } });
});

test.each<
  [what: string, kind: string, value: number, mode: number, network: boolean, words: string]
>([
  ['no network known', 'wendle-station-20', 86, 0, false, 'The last number of its address is 86.'],
  [
    'a value of no meaning',
    'wendle-station-20',
    500,
    0,
    true,
    '500 means nothing to this device. It may not start.',
  ],
  [
    'a way back',
    'wendle-station-20',
    888,
    0,
    true,
    'It goes back to how it left its maker. What is stored in it is lost.',
  ],
  [
    'locked',
    'wendle-station-20',
    900,
    0,
    true,
    'It uses the address that is stored in it, and refuses to have it changed.',
  ],
])('%s is said', (_what, id, value, mode, isKnown, words) => {
  const face = faceOf(id);
  const act = face.meanings.find((one) => value >= one.from && value <= one.to)?.act;
  expect(switchWords(face, { value, mode, act }, isKnown ? NET : undefined)).toBe(words);
});

test('a number outside a narrow subnet is said to be no address', () => {
  const narrow = must(parsePrefix('172.22.40.64/27'));
  const act = { kind: 'last-number' } as const;
  const words = switchWords(faceOf('wendle-station-20'), { value: 200, mode: 0, act }, narrow);
  expect([words, formatIpv4(narrow.network)]).toEqual([
    '200 is no address of its subnet.',
    '172.22.40.64',
  ]);
});
