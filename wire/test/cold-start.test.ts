import { ip, mac, target } from './bench';
import { Site } from './site';

// R-DRILL: a cold start of the practice site, watched without a word.

const valves = target({
  ...{ interfaceId: 'valves', title: 'Oxygen valve block', mac: mac('02:4c:7a:40:51:62') },
  ...{ address: ip('172.22.40.104'), hasIdentity: true },
});
const drive = target({
  ...{ interfaceId: 'drive', title: 'Intake pump drive', mac: mac('02:4c:7a:22:05:9e') },
  ...{ address: ip('172.22.40.91'), way: 'dhcp-mac' },
});
const away = target({
  ...{ interfaceId: 'away', title: 'Backwash drive', mac: mac('02:4c:7a:1d:80:2e') },
  address: ip('172.22.40.88'),
});

const power = (site: Site, on: boolean) => site.site.act({ kind: 'power-all', on }, site.now());

const returns = (site: Site) =>
  site.events
    .filter(({ kind }) => kind === 'came-back')
    .map(({ interfaceId, facts }) => [interfaceId, facts['how']]);

test('the one that was told to keep its address comes back with it, the other asks', async () => {
  const site = new Site([valves, drive, away], ['172.22.40.253']);
  site.engine.arm(600_000, 'Mara');
  await site.advance(20);
  await site.pin('valves');
  site.engine.acts.drill('begin', 'Mara');
  expect(site.engine.status()).toMatchObject({
    answeringUntil: undefined,
    drill: { phase: 'off' },
  });
  power(site, false);
  await site.advance(10);
  const { sent } = site.engine.status().counters;
  power(site, true);
  site.engine.acts.drill('on', 'Mara');
  await site.advance(40);
  expect(site.engine.status().counters.sent).toBe(sent);
  const { rows } = site.engine.status().drill;
  const asks = rows.find((row) => row.mac === drive.mac);
  expect(asks?.asked?.count).toBeGreaterThan(1);
  expect(asks).toMatchObject({ answered: undefined, address: undefined });
  site.engine.acts.drill('end', 'Mara');
  expect(site.engine.status().drill.phase).toBe('ended');
  expect(returns(site)).toEqual([
    ['valves', 'kept'],
    ['drive', 'asks'],
    ['away', 'silent'],
  ]);
  const kept = site.events.find(({ kind }) => kind === 'came-back');
  expect(kept?.facts).toMatchObject({ has: '172.22.40.104' });
  expect(Number(kept?.facts['seconds'])).toBeGreaterThan(2);
});

test('a router somebody plugged in: who leans on it is told, with who answered', async () => {
  const site = new Site([drive], ['172.22.40.253']);
  site.site.act({ kind: 'fault', fault: 'lending-router', on: true }, site.now());
  site.engine.acts.drill('begin', 'Mara');
  // The others would take all it has to lend.
  site.site.act({ kind: 'power', device: 'intake-pump-drive', on: false }, site.now());
  await site.advance(5);
  site.engine.acts.drill('on', 'Mara');
  site.site.act({ kind: 'power', device: 'intake-pump-drive', on: true }, site.now());
  await site.advance(30);
  site.engine.acts.drill('end', 'Mara');
  expect(site.last('came-back')?.facts).toMatchObject({ how: 'elsewhere', by: '172.22.40.215' });
});

test('one word of ours, and the drill says nothing any more', async () => {
  const site = new Site([valves], ['172.22.40.253']);
  site.engine.acts.drill('begin', '');
  site.engine.acts.drill('on', '');
  await site.advance(2);
  site.engine.acts.sweep();
  await site.advance(1);
  expect(site.engine.status().drill.phase).toBe('spoiled');
  site.engine.acts.drill('end', '');
  expect(returns(site)).toEqual([]);
});

test('the laptop hangs on the switch that is switched off: with its link the cabinet is on again', () => {
  const site = new Site([valves]);
  site.engine.acts.drill('begin', '');
  site.engine.linkChanged('down');
  expect(site.engine.status().drill.phase).toBe('off');
  site.engine.linkChanged('up');
  expect(site.engine.status().drill).toMatchObject({ phase: 'on', onAt: site.now() });
});
