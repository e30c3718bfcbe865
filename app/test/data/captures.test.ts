import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ReadableStream } from 'node:stream/web';
import { formatIpv4 } from '@ipsonomo/core/net';
import { hearCapture } from '../../src/data/captures';

const source = readFileSync(join(__dirname, '../../../core/test/data/udhcpc-with-dnsmasq.pcap'));

/** The bytes in pieces of so many, as a disk or a network gives them. */
function inPieces(bytes: Uint8Array, length: number) {
  let at = 0;
  return new ReadableStream({
    pull: (to) => {
      if (at >= bytes.length) return to.close();
      to.enqueue(new Uint8Array(bytes.slice(at, (at += length))));
    },
  }) as unknown as globalThis.ReadableStream<Uint8Array>;
}

test.each([7, 100, 100_000])('a capture in pieces of %i bytes: who is there', async (length) => {
  const told: number[] = [];
  const heard = await hearCapture('cell.pcap', inPieces(source, length), (one) => told.push(one));
  if (!heard.ok) throw new Error(heard.error.code);
  expect(told.at(-1)).toBe(source.length);
  const { frames, unread, isCut, stations } = heard.value;
  expect([frames, unread, isCut]).toEqual([4, 0, false]);
  expect(stations.map(({ addresses }) => addresses.map(formatIpv4))).toContainEqual([
    '172.22.40.104',
  ]);
});

test.each([
  ['cut in its last frame', source.subarray(0, source.length - 9), { frames: 3, isCut: true }],
  ['no capture', Buffer.from('name,address'), 'pcap.magic'],
])('%s', async (_name, bytes, wanted) => {
  const heard = await hearCapture('cell.pcap', inPieces(bytes, 50), () => undefined);
  if (typeof wanted === 'string')
    expect(heard).toMatchObject({ ok: false, error: { code: wanted, where: 'cell.pcap' } });
  else expect(heard).toMatchObject({ ok: true, value: wanted });
});
