import fc from 'fast-check';
import {
  asksAnew,
  decide,
  serverChosenBy,
  type AnswerEntry,
  type Verdict,
} from '../../src/answering';
import { formatIpv4, LIMITED_BROADCAST, toPrefixLength } from '../../src/net';
import {
  BROADCAST_FLAG,
  dhcpMessage,
  dhcpMessageOf,
  encodeWith,
  findOption,
  messageTypeCode,
  OPTION,
  rawOption,
  type DhcpMessage,
  type MessageType,
  type RawOption,
} from '../../src/wire';
import { DEVICE, ip } from '../wire/samples';
import { cases } from '../cases';

const SERVER = ip('172.22.40.250');
const OTHER = ip('172.22.40.9');
const GIVE = ip('172.22.40.104');
const WRONG = ip('172.22.40.55');
const entry: AnswerEntry = {
  mac: DEVICE,
  give: GIVE,
  length: toPrefixLength(24),
  gateway: ip('172.22.40.1'),
  hostName: 'ox1-valves-1',
  leaseSeconds: 86_400,
};

interface Asked extends Partial<DhcpMessage> {
  readonly type?: MessageType;
  readonly more?: readonly RawOption[];
}

const request = ({ type, more = [], ...fields }: Asked): DhcpMessage =>
  dhcpMessageOf({
    operation: 'request',
    transaction: 0x1234,
    clientMac: DEVICE,
    options: [...(type ? [rawOption(OPTION.messageType, messageTypeCode(type))] : []), ...more],
    ...fields,
  });

const wants = (address = GIVE) => rawOption(OPTION.requestedAddress, address);
const chose = (server = SERVER) => rawOption(OPTION.serverId, server);

/** `KIND to ADDRESS:PORT via HARDWARE giving ADDRESS`, or why nothing is said. */
function told(verdict: Verdict): string {
  if (verdict.kind === 'silent') return `silent: ${verdict.reason}`;
  const { reply, to, message } = verdict;
  const gives = formatIpv4(message.yourAddress);
  return `${reply} to ${formatIpv4(to.address)}:${to.port} via ${to.hardware} giving ${gives}`;
}

const ALL = '255.255.255.255:68 via everybody';
const NOTHING = '0.0.0.0';

// R-REPLY, R-BROADCAST: RFC 951 §7, RFC 1534 §2, RFC 2131 §4.3 (its table 4 for the states of a REQUEST).
test.each<[string, Asked, string]>([
  ['BOOTP without options', {}, `BootP reply to ${ALL} giving 172.22.40.104`],
  [
    'BOOTP without the cookie',
    { options: undefined, vendor: new Uint8Array(64) },
    `BootP reply to ${ALL} giving 172.22.40.104`,
  ],
  // RFC 1534 §2: BOOTP is what has no message type, not what has one that nobody knows.
  ...[0, 9, 10, 99].map((code): [string, Asked, string] => [
    `message type ${code}`,
    { more: [{ code: 53, data: Uint8Array.of(code) }] },
    'silent: unknown-type',
  ]),
  [
    'a message type without a value',
    { more: [{ code: 53, data: new Uint8Array() }] },
    'silent: unknown-type',
  ],
  ['DISCOVER', { type: 'DISCOVER' }, `OFFER to ${ALL} giving 172.22.40.104`],
  [
    'DISCOVER that asks for a broadcast',
    { type: 'DISCOVER', flags: BROADCAST_FLAG },
    `OFFER to ${ALL} giving 172.22.40.104`,
  ],
  [
    'DISCOVER that wishes another address is offered the planned one',
    { type: 'DISCOVER', more: [wants(WRONG)] },
    `OFFER to ${ALL} giving 172.22.40.104`,
  ],
  [
    'SELECTING, ours chosen',
    { type: 'REQUEST', more: [wants(), chose()] },
    `ACK to ${ALL} giving 172.22.40.104`,
  ],
  [
    'SELECTING, another server chosen',
    { type: 'REQUEST', more: [wants(), chose(OTHER)] },
    'silent: chose-other-server',
  ],
  [
    'INIT-REBOOT, right',
    { type: 'REQUEST', more: [wants()] },
    `ACK to ${ALL} giving 172.22.40.104`,
  ],
  [
    'INIT-REBOOT, wrong address',
    { type: 'REQUEST', more: [wants(WRONG)] },
    `NAK to ${ALL} giving ${NOTHING}`,
  ],
  [
    'RENEWING',
    { type: 'REQUEST', clientAddress: GIVE },
    'ACK to 172.22.40.104:68 via sender giving 172.22.40.104',
  ],
  [
    'REBINDING with an address that is not planned',
    { type: 'REQUEST', clientAddress: WRONG },
    `NAK to ${ALL} giving ${NOTHING}`,
  ],
  [
    'INFORM from the planned address',
    { type: 'INFORM', clientAddress: GIVE },
    `ACK to 172.22.40.104:68 via sender giving ${NOTHING}`,
  ],
  ['INFORM from another', { type: 'INFORM', clientAddress: WRONG }, 'silent: other-address'],
  ['DECLINE', { type: 'DECLINE', more: [wants(), chose()] }, 'silent: declined'],
  ['RELEASE', { type: 'RELEASE', clientAddress: GIVE }, 'silent: released'],
  [
    'through a relay',
    { type: 'DISCOVER', relayAddress: OTHER },
    'OFFER to 172.22.40.9:67 via sender giving 172.22.40.104',
  ],
  [
    'refused through a relay, which then broadcasts',
    { type: 'REQUEST', relayAddress: OTHER, more: [wants(WRONG)] },
    `NAK to 172.22.40.9:67 via sender giving ${NOTHING}`,
  ],
  ['a reply', { operation: 'reply', type: 'OFFER' }, 'silent: not-a-request'],
  ['a message only servers send', { type: 'ACK' }, 'silent: not-a-request'],
])('%s', (_name, asked, expected) => {
  expect(told(decide(entry, request(asked), SERVER))).toBe(expected);
});

const repliesTo = (asked: Asked): DhcpMessage => {
  const verdict = decide(entry, request(asked), SERVER);
  if (verdict.kind !== 'reply') throw new Error(verdict.reason);
  return verdict.message;
};
const codes = (message: DhcpMessage) => message.options?.map((option) => option.code);

test('BOOTP replies carry no message type and no lease (RFC 1534 §2); DHCP ones carry theirs', () => {
  expect(codes(repliesTo({}))).toEqual([1, 3, 12]);
  expect(codes(repliesTo({ type: 'DISCOVER' }))).toEqual([53, 54, 51, 58, 59, 1, 3, 12]);
  expect(codes(repliesTo({ type: 'INFORM', clientAddress: GIVE }))).toEqual([53, 54, 1, 3, 12]);
  expect(codes(repliesTo({ type: 'REQUEST', more: [wants(WRONG)] }))).toEqual([53, 54]);
});

test('renewal at half, rebinding at seven eighths of the lease (RFC 2131 §4.4.5)', () => {
  const options = repliesTo({ type: 'DISCOVER' }).options ?? [];
  const found = [OPTION.leaseTime, OPTION.renewalTime, OPTION.rebindingTime].map((one) =>
    findOption(options, one),
  );
  expect(found).toEqual([86_400, 43_200, 75_600]);
});

test('R-ECHO: client identifier (RFC 6842 §3) and relay information (RFC 3046 §2.2) come back unchanged', () => {
  const clientId = rawOption(OPTION.clientId, Uint8Array.from(Buffer.from('station-7')));
  const relay = { code: 82, data: Uint8Array.of(1, 4, 0, 1, 0, 5, 2, 6, 0, 1, 2, 3, 4, 5) };
  for (const asked of [
    { type: 'DISCOVER', more: [clientId, relay] },
    { type: 'REQUEST', more: [wants(WRONG), clientId, relay] },
  ] as const)
    expect(repliesTo(asked).options?.slice(-2)).toEqual([clientId, relay]);
});

test('a NAK through a relay sets the broadcast flag (RFC 2131 §4.3.2)', () => {
  const nak = repliesTo({ type: 'REQUEST', relayAddress: OTHER, more: [wants(WRONG)] });
  expect(nak.flags).toBe(BROADCAST_FLAG);
});

test('whatever is asked, nothing but the planned address is given, in at least 300 bytes', () => {
  const address = fc.constantFrom(GIVE, WRONG, OTHER, ip('0.0.0.0'), LIMITED_BROADCAST);
  const option = fc.record({
    code: fc.integer({ min: 1, max: 254 }),
    data: fc.uint8Array({ maxLength: 6 }),
  });
  const any = fc.record({
    type: fc.constantFrom('DISCOVER', 'REQUEST', 'INFORM', 'DECLINE', 'RELEASE', undefined),
    more: fc.array(fc.oneof(option, address.map(wants), address.map(chose)), { maxLength: 5 }),
    clientAddress: address,
    relayAddress: address,
    flags: fc.nat(0xffff),
  });
  fc.assert(
    fc.property(any, ({ type, ...asked }) => {
      const verdict = decide(entry, request({ ...asked, ...(type ? { type } : {}) }), SERVER);
      if (verdict.kind === 'silent') return;
      expect([GIVE, 0]).toContain(verdict.message.yourAddress);
      expect(verdict.message.clientMac).toBe(DEVICE);
      expect(verdict.message.transaction).toBe(0x1234);
      expect(encodeWith(dhcpMessage, verdict.message).length).toBeGreaterThanOrEqual(300);
    }),
    { numRuns: cases(3000), seed: 2131 },
  );
});

test.each<[string, Asked, boolean]>([
  ['BOOTP', {}, true],
  ['DISCOVER', { type: 'DISCOVER' }, true],
  ['INIT-REBOOT', { type: 'REQUEST', more: [wants()] }, true],
  ['SELECTING', { type: 'REQUEST', more: [wants(), chose()] }, false],
  ['RENEWING', { type: 'REQUEST', clientAddress: GIVE }, false],
  ['INFORM', { type: 'INFORM', clientAddress: GIVE }, false],
  ['a reply', { operation: 'reply' }, false],
])('%s begins anew: %s', (_name, asked, anew) => {
  expect(asksAnew(request(asked))).toBe(anew);
});

test('only a REQUEST chooses a server', () => {
  expect(serverChosenBy(request({ type: 'REQUEST', more: [chose(OTHER)] }))).toBe(OTHER);
  expect(serverChosenBy(request({ type: 'DECLINE', more: [chose(OTHER)] }))).toBeUndefined();
});
