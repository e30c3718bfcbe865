import { forgetTwins, hear, mayBeTwins, traitsOf, type HeardClient } from '../../src/answering';
import {
  dhcpMessageOf,
  messageTypeCode,
  OPTION,
  rawOption,
  type DhcpMessage,
} from '../../src/wire';
import { DEVICE, ip } from '../wire/samples';

interface Said {
  readonly name?: string;
  readonly transaction?: number;
  readonly bootp?: boolean;
  readonly at?: number;
}

const said = ({ name, transaction = 1, bootp = false }: Said): DhcpMessage =>
  dhcpMessageOf({
    operation: 'request',
    transaction,
    clientMac: DEVICE,
    options: bootp
      ? []
      : [
          rawOption(OPTION.messageType, messageTypeCode('DISCOVER')),
          ...(name ? [rawOption(OPTION.hostName, name)] : []),
        ],
  });

const after = (all: readonly Said[]): HeardClient | undefined =>
  all.reduce<HeardClient | undefined>(
    (known, one, index) => hear(known, said(one), one.at ?? index * 1000),
    undefined,
  );

test('counts, and keeps when it was first and last heard', () => {
  expect(after([{}, {}, {}])).toMatchObject({ count: 3, firstAt: 0, lastAt: 2000, mac: DEVICE });
});

test('tells what it asks for, or says it has', () => {
  const wanted = rawOption(OPTION.requestedAddress, ip('10.0.0.7'));
  const asks = { ...said({}), options: [...(said({}).options ?? []), wanted] };
  expect(hear(undefined, asks, 0).address).toBe(ip('10.0.0.7'));
  expect(hear(undefined, { ...said({}), clientAddress: ip('10.0.0.8') }, 0).address).toBe(
    ip('10.0.0.8'),
  );
});

/** Two voices that speak in turn, so many seconds apart. */
const inTurn = (count: number, seconds: number): readonly Said[] =>
  Array.from({ length: count }, (_, at) => ({
    ...{ name: at % 2 === 0 ? 'a' : 'b', transaction: at + 1, at: at * seconds * 1000 },
  }));

/** One device: its loader asks, half a second later its firmware; then it is restarted. */
const restarts = (count: number, seconds: number, isAnew = false): readonly Said[] =>
  Array.from({ length: count }, (_, start) =>
    ['loader', 'firmware', 'firmware'].map((name, at) => ({
      ...{ name, transaction: isAnew ? at : start * 10 + at },
      at: start * seconds * 1000 + ([0, 500, 4500][at] ?? 0),
    })),
  ).flat();

// R-TWINS: two voices behind one MAC, told only by what one device cannot do.
test.each<[string, readonly Said[], readonly string[] | undefined]>([
  ['one device', [{ name: 'a' }, { name: 'a' }, { name: 'a' }], undefined],
  ['one device, renamed once', [{ name: 'a' }, { name: 'b' }, { name: 'b' }], undefined],
  [
    'one that goes back once: it may have restarted',
    [{ name: 'a' }, { name: 'b' }, { name: 'a' }],
    undefined,
  ],
  ['loader and firmware in turn, with a power cut in between', restarts(2, 20), undefined],
  ['the same, with numbers that begin anew', restarts(2, 20, true), undefined],
  ['back and forth both ways sooner than anything starts', inTurn(4, 0.5), ['hostName']],
  ['back and forth more often than anybody restarts a device', inTurn(8, 7), ['hostName']],
  ['and so where both have backed off to a minute', inTurn(8, 40), ['hostName']],
  ['only its loader is quick to hand over to its firmware', restarts(3, 15), undefined],
  ['a device that boots by BootP, then by DHCP', [{ bootp: true }, { name: 'a' }], undefined],
  [
    'alike, but with transactions of their own in turn',
    Array.from({ length: 8 }, (_, at) => ({ transaction: (at % 2) + 1 })),
    ['transaction'],
  ],
  ['one that begins anew each time', [{ transaction: 1 }, { transaction: 2 }], undefined],
  [
    'a name of yesterday that comes back',
    [
      { name: 'a', at: 0 },
      { name: 'b', at: 1000 },
      { name: 'a', at: 1e9 },
    ],
    undefined,
  ],
])('%s', (_name, all, twins) => {
  expect(after(all)?.twins).toEqual(twins);
});

test('once told apart they stay so while it is borne out, with both voices kept; then the verdict ages', () => {
  const told = [...inTurn(8, 7), { name: 'a', at: 60_000 }, { name: 'a', at: 61_000 }];
  const heard = after(told);
  expect(heard?.twins).toEqual(['hostName']);
  expect(heard?.voices.map((voice) => voice.traits.hostName)).toEqual(['a', 'b']);
  expect(after([...told, { name: 'a', at: 300_000 }])?.twins).toBeUndefined();
});

test('who has just gone back is not answered at once; a power cut explains it', () => {
  const heard = after([{ name: 'a' }, { name: 'b' }, { name: 'a' }]);
  if (!heard) throw new Error('nothing heard');
  expect([mayBeTwins(heard, 2000), mayBeTwins(heard, 12_000)]).toEqual([true, false]);
  const lifted = forgetTwins(after(inTurn(8, 7)) ?? heard);
  expect([lifted.twins, mayBeTwins(lifted, 50_000)]).toEqual([undefined, false]);
  expect(hear(lifted, said({ name: 'a' }), 60_000).twins).toBeUndefined();
});

test('an empty host name is none; a client identifier is told in hex', () => {
  const message = said({ name: '\0' });
  const id = rawOption(OPTION.clientId, Uint8Array.of(0, 0x41));
  const traits = traitsOf({ ...message, options: [...(message.options ?? []), id] });
  expect(traits).toMatchObject({ hostName: undefined, clientId: '0041' });
});
