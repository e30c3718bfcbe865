import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readCapture } from '../../src/cli/capture';
import { decodeHex } from '../../src/cli/decode';
import { describeFile } from '../../src/cli/describe';
import type { OneCommand } from '../../src/cli/output';
import { subnet as subnets } from '../../src/cli/subnet';

const DATA = join(__dirname, '../../../core/test/data');

function run(command: OneCommand, input: string) {
  const lines: unknown[] = [];
  const told: string[] = [];
  const output = {
    print: (line: unknown) => void lines.push(line),
    tell: (one: string) => void told.push(one),
  };
  return { ok: command(input, output), lines, told };
}

/** Its inputs as they stand on the command line. */
const subnet: OneCommand = (input, output) => subnets(input.split(' '), output);

// RFC 4632 §3.1, RFC 3021 §2.1; names of blocks: RFC 6890 §2.2.2.
test.each([
  [
    '172.22.40.0/24',
    [
      '172.22.40.0',
      24,
      '255.255.255.0',
      '172.22.40.255',
      '172.22.40.1',
      '172.22.40.254',
      254,
      ['Private-Use'],
    ],
  ],
  [
    '10.0.0.4/31',
    ['10.0.0.4', 31, '255.255.255.254', null, '10.0.0.4', '10.0.0.5', 2, ['Private-Use']],
  ],
  ['8.8.8.8/32', ['8.8.8.8', 32, '255.255.255.255', null, '8.8.8.8', '8.8.8.8', 1, []]],
])('subnet %s', (cidr, values) => {
  const { ok, lines } = run(subnet, cidr);
  const keys = ['network', 'prefix', 'mask', 'broadcast', 'first', 'last', 'hosts', 'blocks'];
  expect([ok, lines]).toEqual([true, [Object.fromEntries(keys.map((key, i) => [key, values[i]]))]]);
});

// RFC 4632 §3.1: the network that an address is in, and where in it.
test.each([
  ['10.4.9.77/21', { network: '10.4.8.0', address: '10.4.9.77', stands: 'host 333 of 2046' }],
  ['192.168.10.0 255.255.255.0', { network: '192.168.10.0', prefix: 24 }],
  ['192.168.10.7 255.255.255.248', { network: '192.168.10.0', stands: 'the broadcast address' }],
  ['10.0.0.5/31', { network: '10.0.0.4', stands: 'host 1 of 2' }],
])('subnet %s', (input, wanted) => {
  const { ok, lines } = run(subnet, input);
  expect([ok, lines]).toMatchObject([true, [wanted]]);
});

test('a description file: its kinds, a line each; what is none is told', () => {
  const { ok, lines } = run(describeFile, join(DATA, 'descriptions/plain.eds'));
  expect([ok, lines.length > 0]).toEqual([true, true]);
  expect(lines[0]).toMatchObject({ id: expect.stringMatching(/^eds-/) as string });
  expect(run(describeFile, join(DATA, 'descriptions/no-device.eds')).ok).toBe(false);
});

test('a capture: one line a message, with time, kind, MAC, address, names and options', () => {
  const { ok, lines, told } = run(readCapture, join(DATA, 'udhcpc-with-dnsmasq.pcap'));
  expect([ok, told]).toEqual([true, []]);
  expect(lines).toMatchObject([
    { kind: 'DISCOVER', address: null, names: { host: 'fh2-drive-2', vendorClass: 'belloch-d4' } },
    { kind: 'OFFER', address: '172.22.40.104' },
    { kind: 'REQUEST', mac: '02:00:5e:00:53:11' },
    { kind: 'ACK', time: expect.stringMatching(/^2026-.*\.\d{6}Z$/) as string },
  ]);
  expect(lines[3]).toHaveProperty('options', [
    { code: 53, name: 'message type', value: 'ACK' },
    { code: 54, name: 'server identifier', value: '172.22.40.250' },
    { code: 51, name: 'lease time', value: 4294967295 },
    { code: 1, name: 'subnet mask', value: '255.255.255.0' },
    { code: 28, name: 'broadcast address', value: '172.22.40.255' },
    { code: 12, name: 'host name', value: 'ox1-valves-1' },
    { code: 3, name: 'routers', value: ['172.22.40.1'] },
  ]);
});

test('a frame and the bare message in it read alike', () => {
  const file = readFileSync(join(DATA, 'bootpc-with-dnsmasq.pcap'));
  const frame = file.subarray(40, 40 + file.readUInt32LE(32));
  const whole = run(decodeHex, frame.toString('hex')).lines[0] as { message: object };
  const bare = run(decodeHex, frame.subarray(42).toString('hex')).lines[0];
  expect(bare).toEqual({ kind: 'BootP request', ...whole.message });
});

const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-cli-'));
const file = (name: string, bytes: Uint8Array) => {
  writeFileSync(join(folder, name), bytes);
  return join(folder, name);
};
const good = readFileSync(join(DATA, 'bootpc-with-dnsmasq.pcap'));

test.each<[string, OneCommand, string, RegExp]>([
  ['no slash', subnet, '10.0.0.0', /has no mask/],
  ['a letter', decodeHex, '0x12', /"x" is no hex digit/],
  ['half a byte', decodeHex, '123', /3 hex digits make no whole bytes/],
  ['nothing', decodeHex, '', /no bytes/],
  ['a cut frame', decodeHex, 'ffffffffffff02005e0053110806', /cannot be read at byte 14/],
  ['no file', readCapture, join(folder, 'none'), /There is no file/],
  [
    'no capture',
    readCapture,
    file('text', Buffer.from('hello')),
    /no capture, neither pcap nor pcapng/,
  ],
  [
    'a newer format that says no order of bytes',
    readCapture,
    file('ng', Buffer.concat([Buffer.from('0a0d0d0a', 'hex'), Buffer.alloc(40)])),
    /no capture, neither/,
  ],
])('%s is told in a sentence', (_name, command, input, sentence) => {
  const { ok, lines, told } = run(command, input);
  expect([ok, lines, told.length]).toEqual([false, [], 1]);
  expect(told[0]).toMatch(sentence);
});

test('a capture that was cut: what is whole is printed, and where it ends is told', () => {
  const { ok, lines, told } = run(readCapture, file('cut', good.subarray(0, good.length - 3)));
  expect([ok, lines.length]).toEqual([false, 1]);
  expect(told[0]).toMatch(/ends in the middle of a frame, at byte/);
});
