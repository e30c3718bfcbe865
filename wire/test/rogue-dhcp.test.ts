import {
  BROADCAST_MAC,
  LIMITED_BROADCAST,
  must,
  parseMac,
  UNSPECIFIED,
  ZERO_MAC,
} from '@ipsonomo/core/net';
import {
  arpFrame,
  dhcpFrame,
  dhcpMessageOf,
  messageTypeCode,
  OPTION,
  rawOption,
} from '@ipsonomo/core/wire';
import { DRIVE, EngineBench, ip, LAPTOP, STRANGER } from './bench';

// R-RIVAL: other DHCP servers on the wire, and what a stranger can do about our answering.

const VOICE = '10.77.0.253';
const wants = rawOption(OPTION.requestedAddress, ip('10.77.0.85'));
const chose = (server: string) => rawOption(OPTION.serverId, ip(server));

const isArmed = (bench: EngineBench) => bench.engine.status().answeringUntil !== undefined;
const EXPECTED = '10.77.0.8';

test.each([
  ['one that the plan does not expect, and answers a stranger', STRANGER, '10.77.0.9', false],
  ['an expected one that answers a stranger', STRANGER, EXPECTED, true],
  ['an expected one that answers one of ours', DRIVE, EXPECTED, true],
])('R-RIVAL: while armed: %s', (_what, client, server, goesOn) => {
  const bench = new EngineBench();
  bench.arm();
  bench.rivalOffers(client, server);
  expect(isArmed(bench)).toBe(goesOn);
  const told = bench.notices().find(({ code }) => code === 'other-server');
  if (goesOn) expect(told).toBeUndefined();
  else expect(told).toMatchObject({ server });
  if (client !== DRIVE) return;
  // It is left to that server, and the others are answered on.
  expect(bench.notices()[0]).toMatchObject({
    code: 'left-to-server',
    title: 'Drum filter drive 1',
  });
  bench.spoken();
  bench.asks(DRIVE, { type: 'DISCOVER', transaction: 9 });
  bench.advance(2000);
  expect(bench.replies()).toEqual([]);
});

test('R-RIVAL: others are looked for before, by DISCOVER and INFORM; nobody is answered meanwhile', () => {
  const bench = new EngineBench();
  bench.engine.arm(600_000, '');
  bench.advance(4000);
  expect(bench.engine.status().tasks).toMatchObject([{ kind: 'look-for-servers' }]);
  bench.asks(DRIVE);
  const said = bench.spoken();
  expect(said.filter((one) => one.startsWith('DISCOVER'))).toHaveLength(2);
  expect(said.filter((one) => one.startsWith('INFORM'))).toHaveLength(1);
  expect(bench.replies()).toEqual([]);
  bench.advance(2000);
  expect(isArmed(bench)).toBe(true);
  expect(bench.notices()[0]).toMatchObject({ code: 'no-other-server' });
  // Armed again within ten minutes: it is not looked for anew.
  bench.engine.silence();
  bench.spoken();
  bench.engine.arm(600_000, '');
  expect(isArmed(bench)).toBe(true);
  expect(bench.spoken().filter((one) => one.startsWith('DISCOVER'))).toEqual([]);
});

test('R-RIVAL: one that answers the look: nothing is armed, and who it is is told', () => {
  const bench = new EngineBench();
  bench.engine.arm(600_000, '');
  bench.advance(1000);
  bench.rivalOffers(LAPTOP);
  bench.advance(10_000);
  expect(isArmed(bench)).toBe(false);
  expect(bench.notices()[0]).toMatchObject({ server: '10.77.0.9', mac: '02:00:5e:00:53:66' });
});

test('R-RIVAL: what a switch hides from us shows in what the client chooses', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.asks(DRIVE, { type: 'REQUEST', more: [wants, chose(VOICE)] });
  expect(bench.engine.status().answeringUntil).toBeDefined();
  bench.spoken();
  bench.asks(DRIVE, { type: 'REQUEST', more: [wants, chose('10.77.0.9')], transaction: 2 });
  // Hearsay: it is looked for, that device is left alone, and nothing stops before somebody answers.
  expect(bench.notices()[0]).toMatchObject({ code: 'server-named', server: '10.77.0.9' });
  expect(isArmed(bench)).toBe(true);
  bench.asks(DRIVE, { type: 'DISCOVER', transaction: 3 });
  bench.advance(2000);
  const said = bench.spoken();
  expect(said.filter((one) => one.startsWith('DISCOVER'))).toHaveLength(2);
  expect(said.filter((one) => one.startsWith('OFFER'))).toEqual([]);
  bench.rivalOffers(LAPTOP);
  expect(isArmed(bench)).toBe(false);
});

test('R-RIVAL: a stranger has no lever: not by what it says it chose, nor by what no server says', () => {
  const bench = new EngineBench();
  bench.arm();
  for (let at = 0; at < 30; at += 1)
    bench.asks(STRANGER, { type: 'REQUEST', more: [chose(`10.77.0.${50 + at}`)], transaction: at });
  bench.advance(20_000);
  // A DISCOVER that says it is a reply, from the device's own MAC.
  const nonsense = dhcpMessageOf({
    ...{ operation: 'reply', transaction: 9, clientMac: DRIVE },
    options: [rawOption(OPTION.messageType, messageTypeCode('DISCOVER'))],
  });
  const ends = { from: UNSPECIFIED, fromPort: 67, to: LIMITED_BROADCAST, toPort: 68 };
  bench.engine.frame(dhcpFrame(DRIVE, ends, nonsense));
  expect(isArmed(bench)).toBe(true);
  bench.asks(DRIVE, { type: 'DISCOVER', transaction: 10 });
  bench.advance(1000);
  expect(bench.replies()).toHaveLength(1);
});

test('what stopped us stays to be read, however many frames cannot be', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.rivalOffers(STRANGER);
  for (let at = 0; at < 40; at += 1) {
    const cut = arpFrame(
      must(parseMac(`02:00:5e:00:54:${at.toString(16).padStart(2, '0')}`)),
      BROADCAST_MAC,
      {
        ...{ operation: 'request', senderMac: STRANGER, senderAddress: ip('10.77.0.77') },
        ...{ targetMac: ZERO_MAC, targetAddress: ip('10.77.0.78') },
      },
    ).slice(0, 20);
    bench.engine.frame(cut);
  }
  const codes = bench.notices().map(({ code }) => code);
  expect(codes).toContain('unreadable');
  expect(codes).toContain('other-server');
});
