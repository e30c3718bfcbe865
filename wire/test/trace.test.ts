import { type FieldTarget } from '../src/protocol';
import { ip, mac, planOf, target } from './bench';
import { Site } from './site';

// R-WALK: the way to a device of the practice site, router by router, from an address beside the laptop.

const FEEDING = { subnetId: 'feeding', address: ip('172.22.41.80'), way: 'dhcp-mac' } as const;
const robot: FieldTarget = target({
  ...{ interfaceId: 'robot', title: 'Feeding robot drive', mac: mac('02:4c:7a:22:06:11') },
  ...FEEDING,
});

/** The hall, with the router's gateway, and the feeding beyond it. */
function siteWith(gateway: string | undefined): Site {
  const site = new Site([robot], ['172.22.40.253']);
  const { subnets, ...plan } = planOf([robot], ['172.22.40.253']);
  const hall = subnets.map((one) => ({
    ...{ ...one, gateway: gateway === undefined ? undefined : ip(gateway) },
  }));
  const feeding = { ...hall[0], id: 'feeding', network: ip('172.22.41.0'), voices: [] };
  site.engine.plan({ ...plan, subnets: [...hall, feeding] as typeof subnets });
  return site;
}

async function walked(site: Site) {
  await site.advance(3);
  site.engine.acts.walkTo('robot', 'hall', 'Mara Quist');
  expect(site.engine.status().tasks).toMatchObject([{ kind: 'walk', interfaceId: 'robot' }]);
  await site.advance(15);
  return site.last('walked')?.facts;
}

test('router by router to a device that is there', async () => {
  const site = siteWith('172.22.40.1');
  // It keeps an address of its own in the other network.
  site.site
    .device('feeding-robot-drive')
    ?.keepFromBefore(
      { address: ip('172.22.41.80'), length: robot.length, gateway: ip('172.22.41.1') },
      site.now(),
    );
  await site.advance(10);
  expect(await walked(site)).toMatchObject({
    ...{ ended: 'reply', path: '172.22.40.1 172.22.41.80', from: '172.22.40.253' },
  });
});

test('a device without a gateway: the router passes it on, and nobody answers', async () => {
  const site = siteWith('172.22.40.1');
  site.site
    .device('feeding-robot-drive')
    ?.keepFromBefore({ address: ip('172.22.41.80'), length: robot.length }, site.now());
  await site.advance(10);
  expect(await walked(site)).toMatchObject({
    ...{ ended: 'silent', path: '172.22.40.1 - - -' },
  });
});

test('without a gateway nothing leaves, and that ends as well', async () => {
  expect(await walked(siteWith(undefined))).toMatchObject({
    ...{ ended: 'silent', path: '- - -' },
  });
});

test('one at a time for one device; nothing goes on after silence', async () => {
  const site = siteWith('172.22.40.1');
  await site.advance(3);
  const { acts } = site.engine;
  acts.walkTo('robot', 'hall', '');
  expect(() => acts.walkTo('robot', 'hall', '')).toThrow('field.busy');
  expect(() => acts.walkTo('robot', 'nowhere', '')).toThrow('walk.unknownSubnet');
  await site.advance(1);
  site.engine.silence();
  const { sent } = site.engine.status().counters;
  await site.advance(10);
  expect(site.engine.status().counters.sent).toBe(sent);
  expect(site.kinds()).not.toContain('walked');
});
