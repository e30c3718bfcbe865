import type { MessagePort } from 'node:worker_threads';
import type { PageBytes } from '../src/engine/pages/pages';
import type { FieldTarget } from '../src/protocol';
import { ip, mac, target } from './bench';
import { Site } from './site';

// Devices that are given their address by hand, looked for where they were and followed to where they are
// planned: the whole engine against the practice site, their web pages included.

const CAMERA = '02:4c:7a:90:3a:c4';
const CAMERA_2 = '02:4c:7a:90:3a:d1';
const SCALE = '02:4c:7a:61:81:04';

const camera = (fields: Partial<FieldTarget> = {}): FieldTarget =>
  target({
    ...{ interfaceId: 'camera', title: 'Inspection camera', mac: mac(CAMERA), bootSeconds: 6 },
    ...{ address: ip('172.22.40.151'), gateway: ip('172.22.40.1'), way: 'web-page' },
    ...{ heardBy: 'seen', factory: ip('192.168.77.10'), page: 80 },
    ...fields,
  });

async function listening(...targets: readonly FieldTarget[]): Promise<Site> {
  const site = new Site(targets);
  await site.advance(10);
  return site;
}

/** The browser's end of one connection, without a thread between. */
class Browser {
  said = '';
  ended: string | undefined;
  private tell: (what: PageBytes) => void = () => undefined;

  readonly port = {
    on: (_event: string, take: (what: PageBytes) => void) => (this.tell = take),
    close: () => undefined,
    postMessage: (what: PageBytes) => {
      if (what instanceof Uint8Array) this.said += Buffer.from(what).toString('latin1');
      else if ('ended' in what) this.ended = what.ended;
    },
  } as unknown as MessagePort;

  say(text: string): void {
    this.tell(Buffer.from(text, 'latin1'));
  }
}

async function ask(site: Site, method: string, path: string, form = '', cookie = '') {
  const browser = new Browser();
  void site.engine.acts.converse(browser.port);
  browser.say(
    `${method} ${path} HTTP/1.1\r\nHost: x\r\nCookie: ${cookie}\r\nContent-Length: ${form.length}\r\n\r\n${form}`,
  );
  await site.advance(2);
  return browser;
}

async function login(site: Site, password = 'setup'): Promise<string> {
  const { said } = await ask(site, 'POST', '/login', `user=setup&password=${password}`);
  return /Set-Cookie: (sid=[0-9a-f]+)/.exec(said)?.[1] ?? '';
}

const TO_151 = 'address=172.22.40.151&mask=255.255.255.0&gateway=172.22.40.1';

test('R-MOVE: a camera is found at its factory address, set on its page and followed to the new one', async () => {
  const site = await listening(camera());
  site.engine.acts.follow('camera', 'Mara Quist');
  await site.advance(6);
  expect(site.last('found-before')?.facts).toEqual({
    ...{ at: '192.168.77.10', found: CAMERA, count: 1 },
  });
  await site.through(site.engine.acts.openPage('camera', 'Mara Quist'));
  expect(site.engine.status().page?.address).toBe(ip('192.168.77.10'));
  const cookie = await login(site);
  const page = await ask(site, 'GET', '/network', '', cookie);
  expect(page.said).toContain('Location: /password');
  await ask(site, 'POST', '/password', 'password=halibut9&again=halibut9', cookie);
  await ask(site, 'POST', '/network', TO_151, cookie);
  const stored = await ask(site, 'GET', '/network', '', cookie);
  expect(stored.said).toContain('It is used after a restart');
  // Forgotten restart: it stays where it was, and nothing is called done.
  await site.advance(10);
  expect(site.kinds()).not.toContain('has-address');
  await ask(site, 'POST', '/restart', '', cookie);
  await site.advance(20);
  expect(site.last('has-address')?.mac).toBe(mac(CAMERA));
  expect(site.last('left-old')?.facts).toEqual({ was: '192.168.77.10' });
  expect(site.engine.status().tasks).toEqual([]);
});

test('nothing there, then one, then two: whose page it is would be luck, so none is opened', async () => {
  const site = await listening(camera({ mac: undefined }));
  site.site.act({ kind: 'cable', device: 'inspection-camera', on: false }, site.now());
  site.engine.acts.follow('camera', 'Mara Quist');
  await site.advance(6);
  expect(site.last('found-before')?.facts).toEqual({ at: '192.168.77.10', count: 0 });
  await expect(
    site.through(site.engine.acts.openPage('camera', 'Mara Quist')),
  ).rejects.toMatchObject({
    ...{ code: 'page.silent' },
  });
  for (const device of ['inspection-camera', 'inspection-camera-2'])
    site.site.act({ kind: 'cable', device, on: true }, site.now());
  await site.advance(6);
  expect(site.last('found-before')?.facts).toMatchObject({ count: 2 });
  await expect(
    site.through(site.engine.acts.openPage('camera', 'Mara Quist')),
  ).rejects.toMatchObject({
    ...{ code: 'page.several', facts: { count: 2 } },
  });
  expect(site.engine.status().page).toBeUndefined();
});

test('one, two, and one again: each change is told, or a look that is over would count', async () => {
  const site = await listening(camera({ mac: undefined }));
  const plug = async (on: boolean) => {
    site.site.act({ kind: 'cable', device: 'inspection-camera-2', on }, site.now());
    await site.advance(6);
    return site.last('found-before')?.facts['count'];
  };
  site.engine.acts.follow('camera', 'Mara Quist');
  expect([await plug(false), await plug(true), await plug(false), await plug(true)]).toEqual([
    ...[1, 2, 1, 2],
  ]);
});

test('a camera that starts at its factory address is not taken for the switch that is awaited', async () => {
  const awaited = target({
    ...{ interfaceId: 'switch', title: 'Laboratory switch', mac: undefined, way: 'card' },
    ...{ address: ip('172.22.40.4'), heardBy: 'seen' },
  });
  const site = new Site([awaited, camera({ mac: undefined })]);
  site.engine.acts.watchPower({ interfaceId: 'switch', person: 'Mara Quist' });
  await site.advance(12);
  expect(site.kinds()).not.toContain('arrived-elsewhere');
});

test('R-PAGE-OPEN: a page of another device than the bound one is not opened', async () => {
  const site = await listening(camera({ mac: mac(CAMERA_2) }));
  await expect(
    site.through(site.engine.acts.openPage('camera', 'Mara Quist')),
  ).rejects.toMatchObject({
    ...{ code: 'page.other', facts: { found: CAMERA } },
  });
});

test('falling silent closes the page, and what is asked then is told to nobody', async () => {
  const site = await listening(camera());
  await site.through(site.engine.acts.openPage('camera', 'Mara Quist'));
  site.engine.silence();
  const sent = site.engine.status().counters.sent;
  const browser = await ask(site, 'GET', '/');
  expect(browser.ended).toBe('silent');
  expect(site.engine.status().counters.sent).toBe(sent);
});

test('an address typed on a keypad counts only after a power cut; a wrong digit is somewhere else', async () => {
  const scale = target({
    ...{ interfaceId: 'scale', title: 'Fry scale 1', mac: mac(SCALE), bootSeconds: 4 },
    ...{ address: ip('172.22.40.153'), way: 'keypad', heardBy: 'seen' },
  });
  const site = await listening(scale);
  site.engine.acts.follow('scale', 'Mara Quist');
  site.site.act({ kind: 'type', device: 'fry-scale-1', address: '172.22.40.153' }, site.now());
  await site.advance(10);
  expect(site.kinds()).not.toContain('has-address');
  await site.powerCycle('fry-scale-1');
  expect(site.kinds()).toContain('has-address');
});

test('the address is another one’s: that is told, and the device is not taken for arrived', async () => {
  const site = await listening(camera({ address: ip('172.22.40.101'), mac: undefined }));
  site.engine.acts.follow('camera', 'Mara Quist');
  await site.advance(6);
  expect(site.last('address-taken')?.facts).toEqual({ by: '02:4c:7a:10:00:77' });
  expect(site.kinds()).not.toContain('has-address');
});

describe('nothing is bound and nothing is known of where it was', () => {
  const scale = target({
    ...{ interfaceId: 'scale', title: 'Fry scale 1', mac: undefined, bootSeconds: 4 },
    ...{ address: ip('172.22.40.153'), way: 'keypad', heardBy: 'seen' },
  });

  test('what comes to the address while it is awaited is the device', async () => {
    const site = await listening(scale);
    site.engine.acts.follow('scale', 'Mara Quist');
    await site.advance(4);
    site.site.act({ kind: 'type', device: 'fry-scale-1', address: '172.22.40.153' }, site.now());
    await site.powerCycle('fry-scale-1');
    expect(site.last('has-address')?.mac).toBe(mac(SCALE));
  });

  test('what was there before is somebody, until its label was looked at', async () => {
    const site = await listening(target({ ...scale, address: ip('172.22.40.101') }));
    site.engine.acts.follow('scale', 'Mara Quist');
    await site.advance(6);
    expect(site.last('contradicted')?.facts).toEqual({
      ...{ what: 'unbound', found: '02:4c:7a:10:00:77' },
    });
    expect(site.kinds()).not.toContain('has-address');
  });
});

describe('R-IN-USE: before it is told anything, a device is asked whether a controller uses it', () => {
  const block = (place: 'oxygen' | 'feeding') => {
    const isFeeding = place === 'feeding';
    return target({
      ...{ interfaceId: 'valves', title: 'Valve block', hasIdentity: true, bootSeconds: 3 },
      mac: mac(isFeeding ? '02:4c:7a:40:51:90' : '02:4c:7a:40:51:62'),
      address: ip(isFeeding ? '172.22.41.104' : '172.22.40.104'),
      controller: 'Controller, feeding',
    });
  };

  async function given(place: 'oxygen' | 'feeding'): Promise<Site> {
    const site = new Site([block(place)], [`172.22.${place === 'feeding' ? 41 : 40}.253`]);
    if (place === 'feeding') site.site.act({ kind: 'socket', segment: 'feeding' }, site.now());
    site.engine.arm(600_000, 'Mara Quist');
    await site.advance(15);
    expect(site.kinds()).toContain('has-address');
    return site;
  }

  test('a free one is told to keep its address', async () => {
    const site = await given('oxygen');
    await site.pin('valves');
    expect(site.last('identified')?.facts).toMatchObject({ used: 'no', serial: '7a405162' });
    expect(site.kinds()).toContain('told-to-keep');
  });

  test('one that is in use is told nothing, and its power is not watched away', async () => {
    const site = await given('feeding');
    const refusal = { code: 'device.inUse', facts: { controller: 'Controller, feeding' } };
    await expect(site.pin('valves')).rejects.toMatchObject(refusal);
    const watching =
      site.engine.acts.watchPower({ interfaceId: 'valves', person: 'Mara Quist' }) ??
      Promise.resolve();
    await expect(site.through(watching)).rejects.toMatchObject(refusal);
    expect(site.last('identified')?.facts).toMatchObject({ used: 'yes', status: '0061' });
    expect(site.engine.status().tasks).toEqual([]);
  });

  // R-WHO-KEEPS
  test.each([
    [
      'of another kind',
      { proof: { identity: { vendor: 65_201, type: 27, product: 99 } } },
      { code: 'device.otherKind', facts: { planned: '65201 / 27 / 99', found: '65201 / 27 / 16' } },
    ],
    [
      'of another revision',
      { revision: '9.01' },
      { code: 'device.otherRevision', facts: { planned: '9.01', found: '2.1' } },
    ],
  ])('one %s is told nothing, and both are named', async (_what, other, refusal) => {
    const planned = block('oxygen');
    const proof = { ...planned.proof, ...('proof' in other ? other.proof : {}) };
    const site = new Site([{ ...planned, ...other, proof }], ['172.22.40.253']);
    site.engine.arm(600_000, 'Mara Quist');
    await site.advance(15);
    await expect(site.pin('valves')).rejects.toMatchObject(refusal);
    expect(site.last('identified')).toBeDefined();
    expect(site.kinds()).not.toContain('told-to-keep');
    // Whoever knows better says why.
    const evenSo = 'the maker says it is the same';
    await site.through(
      site.engine.acts.pin({ interfaceId: 'valves', person: 'Mara Quist', evenSo }),
    );
    expect(site.kinds()).toContain('told-to-keep');
  });

  test('whoever presses twice does not slip past the question', async () => {
    const site = await given('feeding');
    const first = site.engine.acts.pin({ interfaceId: 'valves', person: 'Mara Quist' });
    await expect(
      site.engine.acts.pin({ interfaceId: 'valves', person: 'Mara Quist' }),
    ).rejects.toMatchObject({
      ...{ code: 'field.busy' },
    });
    await expect(site.through(first)).rejects.toMatchObject({ code: 'device.inUse' });
    expect(site.kinds()).not.toContain('keep-refused');
  });

  test('a person may say so all the same; then the device itself refuses', async () => {
    const site = await given('feeding');
    await site.through(
      site.engine.acts.pin({
        interfaceId: 'valves',
        person: 'Mara Quist',
        evenSo: 'the line is locked',
      }),
    );
    expect(site.last('overruled')).toMatchObject({
      ...{ person: 'Mara Quist', facts: { act: 'keep', reason: 'the line is locked' } },
    });
    expect(site.last('keep-refused')?.facts).toMatchObject({ why: 'refused', status: 0x0c });
  });
});
