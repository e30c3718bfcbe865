import { must, parseIpv4, parseMac, toPrefixLength } from '@ipsonomo/core/net';
import { findShelfKind, type Kind } from '@ipsonomo/core/plan';
import { answerBytes, readRequest } from '../src/page/http';
import { DevicePage } from '../src/page/page';
import type { PageNow } from '../src/page/now';
import { seeded } from './helpers';

function kind(id: string): Kind {
  const found = findShelfKind(id);
  if (!found) throw new Error(id);
  return found;
}
const at = (text: string) => ({ address: must(parseIpv4(text)), length: toPrefixLength(24) });

const now = (fields: Partial<PageNow> = {}): PageNow => ({
  ...{ kind: kind('fennrick-camera-c1'), mac: must(parseMac('02:4c:7a:90:3a:c4')) },
  ...{ serial: 'S903AC4', configured: at('192.168.77.10'), stored: at('192.168.77.10') },
  ...{ password: 'halibut9', isConnected: false },
  ...fields,
});

class Visit {
  private readonly page = new DevicePage(seeded(3));
  private cookie = '';

  ask(method: string, path: string, form: string, state: PageNow) {
    const request = { method, path, cookie: this.cookie, form: new URLSearchParams(form) };
    const step = this.page.answer(state, request);
    this.cookie = step.answer.cookie ?? this.cookie;
    return step;
  }

  login(state: PageNow): void {
    this.ask('POST', '/login', `user=setup&password=${state.password ?? 'setup'}`, state);
  }
}

test('nobody gets in without the password, nor past the forced new one', () => {
  const visit = new Visit();
  const fresh = now({ password: undefined });
  expect(visit.ask('GET', '/network', '', fresh).answer.body).toContain('Log in');
  expect(visit.ask('POST', '/login', 'user=setup&password=wrong', fresh).answer.status).toBe(403);
  visit.login(fresh);
  expect(visit.ask('GET', '/network', '', fresh).answer.location).toBe('/password');
  const refused = [
    'password=setup&again=setup',
    'password=short&again=short',
    'password=a&again=b',
  ];
  for (const form of refused)
    expect(visit.ask('POST', '/password', form, fresh)).toMatchObject({
      ...{ answer: { status: 400 }, deeds: [] },
    });
  expect(visit.ask('POST', '/password', 'password=halibut9&again=halibut9', fresh).deeds).toEqual([
    { kind: 'password', password: 'halibut9' },
  ]);
});

test.each([
  ['address=172.22.40.300&mask=255.255.255.0', 'The address cannot be read'],
  ['address=172.22.40.151&mask=255.0.255.0', 'The mask cannot be read'],
  ['address=172.22.40.151&mask=255.255.255.0&gateway=x', 'The gateway cannot be read'],
])('%s is refused and nothing is stored', (form, words) => {
  const visit = new Visit();
  visit.login(now());
  const step = visit.ask('POST', '/network', form, now());
  expect(step).toMatchObject({ answer: { status: 400 }, deeds: [] });
  expect(step.answer.body).toContain(words);
});

test('while its controller is connected the page is read-only', () => {
  const visit = new Visit();
  const connected = now({ isConnected: true });
  visit.login(connected);
  for (const path of ['/network', '/restart', '/save']) {
    const step = visit.ask('POST', path, 'address=172.22.40.151&mask=255.255.255.0', connected);
    expect(step).toMatchObject({ answer: { status: 403 }, deeds: [] });
    expect(step.answer.body).toContain('Read-only while its controller is connected');
  }
});

test('one kind stores and restarts, another applies at once and has to be saved', () => {
  const camera = new Visit();
  camera.login(now());
  const form = 'address=172.22.40.151&mask=255.255.255.0&gateway=172.22.40.1';
  expect(camera.ask('POST', '/network', form, now()).deeds).toMatchObject([{ kind: 'store' }]);
  expect(camera.ask('POST', '/restart', '', now()).deeds).toEqual([{ kind: 'restart' }]);
  const router = now({ kind: kind('eskmere-router-4') });
  const visit = new Visit();
  visit.login(router);
  expect(visit.ask('POST', '/network', form, router).deeds).toMatchObject([{ kind: 'apply' }]);
  expect(visit.ask('POST', '/save', '', router).deeds).toEqual([{ kind: 'save' }]);
});

const text = (value: string) => Uint8Array.from(value, (letter) => letter.charCodeAt(0));

test.each([
  ['GET / HTTP/1.1\r\nHost: x\r\n\r\n', { method: 'GET', path: '/' }],
  ['POST /a HTTP/1.1\r\nContent-Length: 3\r\n\r\nb=1', { method: 'POST', path: '/a' }],
  ['POST /a HTTP/1.1\r\nContent-Length: 9\r\n\r\nb=1', undefined],
  ['GET / HTTP/1.1\r\nHost', undefined],
  ['hello\r\n\r\n', 'bad'],
  ['GET x HTTP/1.1\r\n\r\n', 'bad'],
])('%j', (bytes, expected) => {
  const request = readRequest(text(bytes));
  if (typeof expected === 'object') expect(request).toMatchObject(expected);
  else expect(request).toBe(expected);
});

test('more than a page can ask for is no request', () => {
  expect(readRequest(new Uint8Array(20_000))).toBe('bad');
});

test('an answer says how long it is, whatever letters it holds', () => {
  const bytes = answerBytes({ status: 200, body: 'größer' });
  const [head = '', body = ''] = Buffer.from(bytes).toString('latin1').split('\r\n\r\n');
  expect(head).toContain(`Content-Length: ${body.length}`);
  expect(body).toBe('gr&#246;&#223;er');
});
