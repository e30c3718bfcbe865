import assert from 'node:assert/strict';
import { BROADCAST_MAC, must, parseMac, toIpv4, type MacAddress } from '@ipsonomo/core/net';
import { arpFrame } from '@ipsonomo/core/wire';
import type { Carrier, CarrierEvents, LinkState } from '../src/carriers/carrier';

// What every carrier has to hold, whatever it carries frames on: one suite for all of them.

/** Whoever is at the other end of the cable. */
export interface OtherEnd {
  send(frame: Uint8Array): void;
  /** What came to it since it was plugged in. */
  readonly heard: readonly Uint8Array[];
}

/** A carrier on a wire of its own, with somebody at the other end. */
export interface CarrierBench {
  readonly source: string;
  open(events: CarrierEvents): Carrier;
  readonly other: OtherEnd;
  /** Takes all of it down. */
  close(): void;
}

export const THEIRS = must(parseMac('02:00:5e:00:53:e1'));

/** A question of somebody's, told from others by the address that is asked for. */
export const question = (from: MacAddress, last: number): Uint8Array =>
  arpFrame(from, BROADCAST_MAC, {
    operation: 'request',
    ...{ senderMac: from, senderAddress: toIpv4(0x0a4d_0001) },
    ...{
      targetMac: must(parseMac('00:00:00:00:00:00')),
      targetAddress: toIpv4(0x0a4d_0000 + last),
    },
  });

interface Opened {
  readonly carrier: Carrier;
  readonly heard: Uint8Array[];
  readonly links: LinkState[];
}

function opened(bench: CarrierBench): Opened {
  const heard: Uint8Array[] = [];
  const links: LinkState[] = [];
  const carrier = bench.open({
    frame: (frame) => heard.push(frame),
    link: (state) => links.push(state),
  });
  return { carrier, heard, links };
}

/** Waits until it holds; @throws with what it waited for */
export async function until(what: string, holds: () => boolean): Promise<void> {
  for (let looks = 0; looks < 2000; looks += 1) {
    if (holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  throw new Error(`waited in vain: ${what}`);
}

const bytes = (frames: readonly Uint8Array[]) =>
  // A cable fills a short frame up to 60 bytes (IEEE 802.3 §3.2.8).
  frames.map((frame) => Buffer.from(frame.subarray(0, 42)).toString('hex'));

const MANY = 200;
const numbers = Array.from({ length: MANY }, (_, at) => at);

export interface CarrierLaw {
  readonly title: string;
  hold(bench: CarrierBench): Promise<void>;
}

export const CARRIER_LAWS: readonly CarrierLaw[] = [
  {
    title: 'it says where evidence comes from, and which MAC is its own',
    async hold(bench) {
      const { carrier, links } = opened(bench);
      assert.equal(carrier.source, bench.source);
      assert.notEqual(carrier.mac, THEIRS);
      // Who says nothing of its link has one.
      assert.ok(links.every((link) => link === 'up'));
      carrier.close();
    },
  },
  {
    title: 'what is sent leaves byte by byte, in its order',
    async hold(bench) {
      const { carrier } = opened(bench);
      const sent = numbers.map((at) => question(carrier.mac, at));
      for (const frame of sent) carrier.send(frame);
      await until('all of them', () => bench.other.heard.length >= MANY);
      assert.deepEqual(bytes(bench.other.heard), bytes(sent));
      carrier.close();
    },
  },
  {
    title: 'a frame that is written over after it was sent left as it was',
    async hold(bench) {
      const { carrier } = opened(bench);
      const frame = question(carrier.mac, 7);
      const [before] = bytes([frame]);
      carrier.send(frame);
      frame.fill(0xff);
      await until('it', () => bench.other.heard.length > 0);
      assert.deepEqual(bytes(bench.other.heard), [before]);
      carrier.close();
    },
  },
  {
    title: 'what comes in is told byte by byte, in its order, and each frame is the listener’s own',
    async hold(bench) {
      const { carrier, heard } = opened(bench);
      const sent = numbers.map((at) => question(THEIRS, at));
      for (const frame of sent) bench.other.send(frame);
      await until('all of them', () => heard.length >= MANY);
      // Kept while others came in, and nobody wrote into them.
      assert.deepEqual(bytes(heard), bytes(sent));
      carrier.close();
    },
  },
  {
    title: 'once closed nothing leaves and nothing is told; closing twice is no harm',
    async hold(bench) {
      const { carrier, heard } = opened(bench);
      bench.other.send(question(THEIRS, 1));
      await until('the first', () => heard.length === 1);
      carrier.close();
      carrier.close();
      carrier.send(question(carrier.mac, 2));
      bench.other.send(question(THEIRS, 3));
      await new Promise((resolve) => setTimeout(resolve, 100));
      assert.deepEqual([heard.length, bench.other.heard.length], [1, 0]);
    },
  },
];
