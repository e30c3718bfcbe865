import {
  dhcpMessageOf,
  hear,
  messageTypeCode,
  OPTION,
  rawOption,
  traitsOf,
  type DhcpMessage,
  type HeardClient,
} from '../../src';
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

// R-TWINS: two voices behind one MAC: the first speaks again after the second did.
test.each<[string, readonly Said[], readonly string[] | undefined]>([
  ['one device', [{ name: 'a' }, { name: 'a' }, { name: 'a' }], undefined],
  ['one device, renamed once', [{ name: 'a' }, { name: 'b' }, { name: 'b' }], undefined],
  ['two names in turn', [{ name: 'a' }, { name: 'b' }, { name: 'a' }], ['hostName']],
  ['a device that boots by BootP, then by DHCP', [{ bootp: true }, { name: 'a' }], undefined],
  [
    'alike, but with transactions of their own in turn',
    [{ transaction: 1 }, { transaction: 2 }, { transaction: 1 }],
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

test('once told apart they stay so, with both voices kept', () => {
  const heard = after([{ name: 'a' }, { name: 'b' }, { name: 'a' }, { name: 'a' }, { name: 'a' }]);
  expect(heard?.twins).toEqual(['hostName']);
  expect(heard?.voices.map((voice) => voice.traits.hostName)).toEqual(['a', 'b']);
});

test('an empty host name is none; a client identifier is told in hex', () => {
  const message = said({ name: '\0' });
  const id = rawOption(OPTION.clientId, Uint8Array.of(0, 0x41));
  const traits = traitsOf({ ...message, options: [...(message.options ?? []), id] });
  expect(traits).toMatchObject({ hostName: undefined, clientId: '0041' });
});
