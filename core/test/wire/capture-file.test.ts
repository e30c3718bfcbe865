import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { captureIssue, CaptureReader, DecodeError, framesOfCapture } from '../../src/wire';
import { withTshark } from './with-tshark';

// Captures in pieces and in both forms; the newer form as Debian's editcap writes it.

const SOURCE = join(__dirname, '../data/udhcpc-with-dnsmasq.pcap');
const source = new Uint8Array(readFileSync(SOURCE));
const own = [...framesOfCapture(source)];

/** Read in pieces that end after these many bytes each. */
function inPieces(bytes: Uint8Array, ends: readonly number[]) {
  const reader = new CaptureReader();
  const cuts = [...new Set(ends.map((end) => end % bytes.length))].sort((a, b) => a - b);
  const records = [...cuts, bytes.length].flatMap((end, index) => [
    ...reader.push(bytes.slice(cuts[index - 1] ?? 0, end)),
  ]);
  reader.end();
  return records;
}

test('a capture says the same in whatever pieces it comes', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(source.length), { maxLength: 12 }), (ends) => {
      expect(inPieces(source, ends)).toEqual(own);
    }),
  );
});

const issueOf = (bytes: Uint8Array) => {
  try {
    return [...framesOfCapture(bytes)].length;
  } catch (error) {
    if (error instanceof DecodeError) return captureIssue('cell.pcap', error);
    throw error;
  }
};

const changed = (at: number, byte: number) => {
  const bytes = source.slice();
  bytes[at] = byte;
  return bytes;
};

test.each([
  ['nothing', new Uint8Array(0), 'pcap.magic'],
  ['two letters', Buffer.from('hi'), 'pcap.magic'],
  ['a text', Buffer.from('hello, this is no capture'), 'pcap.magic'],
  ['Wi-Fi', changed(20, 105), 'pcap.link'],
  ['a length that cannot be', changed(34, 0xff), 'pcap.broken'],
  ['cut in a frame', source.slice(0, -3), 'pcap.cut'],
  ['cut in its head', source.slice(0, 20), 'pcap.cut'],
])('%s is told', (_name, bytes, code) => {
  expect(issueOf(bytes)).toMatchObject({ code, where: 'cell.pcap' });
});

withTshark('the newer form, as editcap writes it', () => {
  const written = (...args: readonly string[]) => {
    const file = join(mkdtempSync(join(tmpdir(), 'ipsonomo-')), 'written.pcapng');
    execFileSync('editcap', ['-F', 'pcapng', ...args, SOURCE, file]);
    return new Uint8Array(readFileSync(file));
  };

  test('its frames, times and lengths are those of the classic form', () => {
    expect([...framesOfCapture(written())]).toEqual(own);
  });

  test('frames that were cut are told with their length on the wire', () => {
    const cut = [...framesOfCapture(written('-s', '60'))];
    expect(cut.map((one) => [one.frame.length, one.wireLength])).toEqual(
      own.map((one) => [60, one.wireLength]),
    );
  });

  test('it says the same in whatever pieces it comes', () => {
    const bytes = written();
    fc.assert(
      fc.property(fc.array(fc.nat(bytes.length), { maxLength: 12 }), (ends) => {
        expect(inPieces(bytes, ends)).toEqual(own);
      }),
    );
  });

  test.each([
    ['of another link alone', () => written('-T', 'ieee-802-11'), 'pcap.link'],
    ['cut in the middle', () => written().slice(0, -20), 'pcap.cut'],
  ])('%s', (_name, bytes, code) => {
    expect(issueOf(bytes())).toMatchObject({ code });
  });

  test('any byte of it changed: frames or a refusal, nothing else', () => {
    const bytes = written();
    fc.assert(
      fc.property(fc.nat(bytes.length - 1), fc.nat(255), (at, byte) => {
        const other = bytes.slice();
        other[at] = byte;
        const told = issueOf(other);
        expect(typeof told === 'number' || typeof told.code === 'string').toBe(true);
      }),
      { numRuns: 500 },
    );
  });
});
