import { must, parseIpv4, parseMac, parsePrefix } from '../../src/net';
import {
  cardFile,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type CardForm,
  type Interface,
} from '../../src/plan';

const ip = (text: string) => must(parseIpv4(text));
const form: CardForm = {
  ...{ file: '{name}.cfg', where: 'Uppermost folder', lineEnd: 'crlf' },
  content:
    'ip={address}/{length}\nmask={mask} net={network}\ngw={gateway} {notAWord} st={station}\n',
};
const plan = toPlan({
  subnets: [
    toSubnet({
      ...{ id: 's', name: 'Hall', prefix: must(parsePrefix('172.22.40.0/22')) },
      gateway: ip('172.22.40.1'),
    }),
  ],
});
const made = (more: Partial<CardForm> = {}, at: Partial<Interface> = {}) => {
  const one = toInterface({
    ...{ id: 'i', deviceId: 'd', subnetId: 's', address: ip('172.22.41.7') },
    ...at,
  });
  const device = toDevice({
    ...{ id: 'd', title: 'Rack', name: 'fh2-rack-1', kindId: 'k', way: 'card' },
    interfaces: [one],
  });
  return cardFile(plan, { ...form, ...more }, device, one);
};

test('R-CARD: every word stands for its value, lines end as the kind says it', () => {
  expect(must(made())).toEqual({
    ...{ name: 'fh2-rack-1.cfg', where: 'Uppermost folder' },
    text:
      'ip=172.22.41.7/22\r\nmask=255.255.252.0 net=172.22.40.0/22\r\n' +
      'gw=172.22.40.1 {notAWord} st=fh2-rack-1\r\n',
  });
  const alone = made({ content: 'a\r\nb={gateway}', lineEnd: 'lf' }, { gateway: 'none' });
  expect(must(alone).text).toBe('a\nb=0.0.0.0');
  const masked = made({ content: '{mask}' }, { mask: ip('255.255.255.0') });
  expect(must(masked).text).toBe('255.255.255.0');
  const bound = made({ content: '{mac}' }, { mac: must(parseMac('02:00:00:00:00:07')) });
  expect(must(bound).text).toBe('02:00:00:00:00:07');
});

test.each<[string, Partial<CardForm>, string, string]>([
  ['a word that means nothing', { content: 'x={adress}' }, 'card.word', 'adress'],
  ['a value that nobody knows yet', { content: '{mac}' }, 'card.unknown', 'mac'],
  ['a name with a path', { file: '../{name}' }, 'card.name', '../fh2-rack-1'],
  ['a name that is a folder', { file: '..' }, 'card.name', '..'],
  ['no name', { file: '' }, 'card.name', ''],
])('R-CARD: refused: %s', (_what, more, code, where) => {
  const file = made(more);
  expect(file.ok ? 'ok' : [file.error.code, file.error.where]).toEqual([code, where]);
});
