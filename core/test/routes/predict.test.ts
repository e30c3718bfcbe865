import { ask, addressesOf, host, ip, pathOf, port, prefix, route, verdictOf } from './site';

// R-THERE-AND-BACK: two machine networks and a router, and what is wrong with them again and again.

const router = (more = {}) =>
  host('r', [port('hall', '10.1.0.1/24'), port('feed', '10.2.0.1/24')], {
    forwards: true,
    ...more,
  });
/** Without a gateway where that is ''. */
const plc = (cidr = '10.1.0.10/24', gateway = '10.1.0.1') =>
  host('plc', [port('hall', cidr, gateway === '' ? undefined : gateway)]);
const robot = (cidr = '10.2.0.12/24', gateway?: string, link = 'feed') =>
  host('robot', [port(link, cidr, gateway)]);

test('there and back, by the router', () => {
  const found = ask([plc(), router(), robot('10.2.0.12/24', '10.2.0.1')], 'plc', '10.2.0.12');
  expect(verdictOf(found)).toBe('works');
  expect(pathOf(found.there)).toBe('plc > r > robot');
  expect(found.back && pathOf(found.back)).toBe('robot > r > plc');
});

const good = robot('10.2.0.12/24', '10.2.0.1');
const elsewhere = host('other', [port('hall', '10.1.0.7/24')]);

test.each([
  ['no gateway at home', [plc('10.1.0.10/24', ''), router(), good], 'there plc gateway-missing'],
  ['no gateway there', [plc(), router(), robot()], 'back robot gateway-missing'],
  [
    'its gateway is in another network',
    [plc(), router(), robot('10.2.0.12/24', '10.1.0.1')],
    'back robot gateway-outside',
  ],
  [
    'nobody is where its gateway should be',
    [plc(), router(), robot('10.2.0.12/24', '10.2.0.254')],
    'back robot gateway-nobody',
  ],
  [
    'its gateway is no router',
    [plc('10.1.0.10/24', '10.1.0.7'), elsewhere, router(), good],
    'there other not-router',
  ],
  ['its mask is too wide', [plc('10.1.0.10/8'), router(), good], 'there plc mask-wide'],
  [
    'too wide, and a router that answers for others',
    [plc('10.1.0.10/8'), router({ answersForOthers: true }), good],
    'works answered-for',
  ],
  [
    'the mask of the other end is too wide',
    [plc(), router(), robot('10.2.0.12/8', '10.2.0.1')],
    'back robot mask-wide',
  ],
  [
    'in a socket of another network',
    [plc(), router(), robot('10.1.0.12/24', '10.1.0.1', 'feed')],
    'there plc other-link',
    '10.1.0.12',
  ],
  [
    'it is its own gateway',
    [plc('10.1.0.10/24', '10.1.0.10'), router(), good],
    'there plc gateway-self',
  ],
  ['nobody has it', [plc(), router(), good], 'there r nobody', '10.2.0.99'],
  ['a router that knows no way', [plc(), router(), good], 'there r no-route', '10.9.0.1'],
  [
    'a route whose neighbour is nowhere',
    [plc(), router({ routes: [route('10.9.0.0/24', '10.8.0.1')] }), good],
    'there r route-outside',
    '10.9.0.1',
  ],
  [
    'by its mask it is the broadcast address',
    [plc('10.1.0.10/28'), router(), host('b', [port('hall', '10.1.0.15/24')])],
    'there plc broadcast',
    '10.1.0.15',
  ],
  [
    'two have the address',
    [plc(), router(), good, host('twin', [port('feed', '10.2.0.12/24', '10.2.0.1')])],
    'there r doubled',
  ],
])('%s', (_what, hosts, expected, to = '10.2.0.12') => {
  expect(verdictOf(ask(hosts, 'plc', to))).toBe(expected);
});

test('a mask too narrow: a neighbour is reached by way of the router, or not at all', () => {
  const near = host('near', [port('hall', '10.1.0.200/24', '10.1.0.1')]);
  const narrow = plc('10.1.0.10/25');
  const works = ask([narrow, router(), near], 'plc', '10.1.0.200');
  expect(verdictOf(works)).toBe('works by-the-router');
  expect(pathOf(works.there)).toBe('plc > r > near');
  expect(works.back && pathOf(works.back)).toBe('near > plc');
  const alone = plc('10.1.0.10/25', '');
  expect(verdictOf(ask([alone, router(), near], 'plc', '10.1.0.200'))).toBe(
    'there plc mask-narrow',
  );
});

test('two routers that send it to each other', () => {
  const a = host('a', [port('hall', '10.1.0.1/24'), port('mid', '10.3.0.1/24')], {
    ...{ forwards: true, routes: [route('10.2.0.0/24', '10.3.0.2')] },
  });
  const b = host('b', [port('mid', '10.3.0.2/24')], {
    ...{ forwards: true, routes: [route('10.2.0.0/24', '10.3.0.1')] },
  });
  const found = ask([plc(), a, b], 'plc', '10.2.0.12');
  expect(verdictOf(found)).toMatch(/^there [ab] loop$/);
  // 64 routers may touch it, and the one that would be the next drops it.
  expect(found.there.hops).toHaveLength(65);
});

test('a controller with two network modules passes on no IP', () => {
  const rack = host('rack', [port('hall', '10.1.0.1/24'), port('feed', '10.2.0.1/24')], {
    isRack: true,
  });
  expect(verdictOf(ask([plc(), rack, good], 'plc', '10.2.0.12'))).toBe('there rack rack');
});

describe('translations', () => {
  const inside = port('machine', '192.168.5.1/24');
  const oneToOne = (more = {}) =>
    host('nat', [port('hall', '10.1.0.1/24'), inside], {
      forwards: true,
      translations: [
        { kind: 'one-to-one', inside: prefix('192.168.5.0/28'), outside: prefix('10.1.0.160/28') },
      ],
      ...more,
    });
  const drive = (gateway?: string) => host('drive', [port('machine', '192.168.5.9/24', gateway)]);

  test('one to one: asked by its outside address, which the router answers for', () => {
    const found = ask([plc(), oneToOne(), drive('192.168.5.1')], 'plc', '10.1.0.169', 'drive');
    expect(verdictOf(found)).toBe('works');
    expect(addressesOf(found.there)).toBe(
      '10.1.0.10 10.1.0.169, 10.1.0.10 192.168.5.9, 10.1.0.10 192.168.5.9',
    );
    expect(found.back && addressesOf(found.back)).toBe(
      '192.168.5.9 10.1.0.10, 10.1.0.169 10.1.0.10, 10.1.0.169 10.1.0.10',
    );
  });

  test('from inside it is seen as its outside address', () => {
    const found = ask([plc(), oneToOne(), drive('192.168.5.1')], 'drive', '10.1.0.10');
    expect(verdictOf(found)).toBe('works');
    expect(addressesOf(found.there)).toBe(
      '192.168.5.9 10.1.0.10, 10.1.0.169 10.1.0.10, 10.1.0.169 10.1.0.10',
    );
  });

  test('many to one: out and back works, in does not', () => {
    const many = oneToOne({
      translations: [
        { kind: 'many-to-one', inside: prefix('192.168.5.0/24'), outside: ip('10.1.0.1') },
      ],
    });
    const hosts = [plc('10.1.0.10/24'), many, drive('192.168.5.1')];
    const out = ask(hosts, 'drive', '10.1.0.10');
    expect(verdictOf(out)).toBe('works');
    expect(out.there.hops.at(-1)?.ends.from).toBe(ip('10.1.0.1'));
    // The private network is no secret to the router itself; but its reply comes from elsewhere.
    expect(verdictOf(ask(hosts, 'plc', '192.168.5.9'))).toBe('works');
    const noWayBack = [plc(), many, drive()];
    expect(verdictOf(ask(noWayBack, 'drive', '10.1.0.10'))).toBe('there drive gateway-missing');
  });

  test('translated one way: the reply takes a way that does not know of it', () => {
    const second = host('plain', [port('hall', '10.1.0.2/24'), port('machine', '192.168.5.2/24')], {
      forwards: true,
    });
    const hosts = [plc(), oneToOne(), second, drive('192.168.5.2')];
    expect(verdictOf(ask(hosts, 'plc', '10.1.0.169'))).toBe('back plc one-way');
  });
});
