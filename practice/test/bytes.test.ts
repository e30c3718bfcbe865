import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { findShelfKind, type Kind } from '@ipsonomo/core/plan';
import { dissect, framesOfCapture, toHex } from '@ipsonomo/core/wire';
import { TERN_COVE, type SiteDefinition } from '../src';
import { Bench, mac } from './helpers';

const captured = (name: string): readonly Uint8Array[] =>
  [
    ...framesOfCapture(new Uint8Array(readFileSync(join(__dirname, '../../core/test/data', name)))),
  ].map((record) => record.frame);

const site = (kind: Kind | undefined, hostName?: string): SiteDefinition => {
  if (!kind) throw new Error('no such kind');
  const base = { id: 'one', title: 'One', kind, place: '', segment: 'a', label: '' };
  const device = { ...base, mac: mac('02:00:5e:00:53:11'), ...(hostName ? { hostName } : {}) };
  return {
    segments: TERN_COVE.segments.slice(0, 1).map((one) => ({ ...one, id: 'a' })),
    devices: [device],
    routers: [],
    faults: [],
  };
};

/** Frame without what a client chooses anew each time: transaction, seconds, UDP checksum. */
function comparable(frame: Uint8Array): string {
  const copy = frame.slice();
  copy.fill(0, 40, 42);
  copy.fill(0, 46, 52);
  return toHex(copy);
}

// The captures hold what udhcpc and bootpc of Debian 12 really sent.
test('a DHCP device of the practice site sends what udhcpc sends, byte for byte', () => {
  const [discover, , request] = captured('udhcpc-with-dnsmasq.pcap');
  const bench = new Bench(site(findShelfKind('belloch-drive-d4'), 'fh2-drive-2'));
  bench.bind('02:00:5e:00:53:11', '172.22.40.104');
  bench.advance(10_000);
  const [ours, second] = bench.frames.filter((frame) => dissect(frame).kind === 'dhcp');
  expect(discover && ours && comparable(ours)).toBe(discover && comparable(discover));
  expect(request && second && comparable(second)).toBe(request && comparable(request));
});

test('a BootP device sends what bootpc sends, from its BOOTP head to its last byte', () => {
  const [request] = captured('bootpc-with-dnsmasq.pcap');
  const bench = new Bench(site(findShelfKind('tarnwick-valves-16')));
  bench.advance(10_000);
  const [ours] = bench.frames.filter((frame) => dissect(frame).kind === 'dhcp');
  // bootpc was told to ask for a broadcast reply; its kernel wrote the IP header.
  const strip = (frame: Uint8Array) => comparable(frame).slice(84).replace('00008000', '00000000');
  expect(request && ours && strip(ours)).toBe(request && strip(request));
});
