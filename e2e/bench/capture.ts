import { spawn } from 'node:child_process';
import { mkdtempSync, openSync, closeSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  arpFrame,
  encodeWith,
  framesOfCapture,
  ipFrame,
  OWN_PCAP,
  pcapHeader,
  pcapRecord,
  udpPacket,
} from '@ipsonomo/core/wire';
import { toIpv4, toMac } from '@ipsonomo/core/net';
import { median, type Figure } from './figures';

// A capture of 200 MB read to its BootP and DHCP messages, beside tshark's own listing of the same fields.

const MEGABYTES = 200;
const TIMES = 3;
const ROOT = join(__dirname, '../..');
const SAMPLE = join(ROOT, 'core/test/data/udhcpc-with-dnsmasq.pcap');

/** What a cell says in its day: mostly data of others and ARP, a few requests among it. */
function block(): Buffer {
  const dhcp = [...framesOfCapture(new Uint8Array(readFileSync(SAMPLE)))].map(({ frame }) => frame);
  const [from, to] = [toMac(0x02005e005311), toMac(0x02005e005312)];
  const [own, other] = [toIpv4(0x0a090007), toIpv4(0x0a090008)];
  const data = ipFrame(
    from,
    to,
    udpPacket({ from: own, fromPort: 2222, to: other, toPort: 2222 }, new Uint8Array(120)),
  );
  const ask = arpFrame(from, toMac(0xffffffffffff), {
    ...{ operation: 'request', senderMac: from, senderAddress: own },
    ...{ targetMac: toMac(0), targetAddress: other },
  });
  const frames = [...dhcp, ...Array.from({ length: 1500 }, (_, at) => (at % 10 ? data : ask))];
  return Buffer.concat(
    frames.map((frame, at) =>
      encodeWith(pcapRecord(OWN_PCAP), {
        ...{ at: 1_732_420_000_000_000 + at * 100, frame, wireLength: frame.length },
      }),
    ),
  );
}

function written(): string {
  const path = join(mkdtempSync(join(tmpdir(), 'ipsonomo-capture-')), 'day.pcap');
  const file = openSync(path, 'w');
  writeSync(file, encodeWith(pcapHeader, OWN_PCAP));
  const one = block();
  for (let bytes = 0; bytes < MEGABYTES * 1e6; bytes += one.length) writeSync(file, one);
  closeSync(file);
  return path;
}

interface Run {
  readonly seconds: number;
  /** The most it had at once, in MB. */
  readonly megabytes: number;
  readonly lines: number;
}

/** Runs a program to its end, and counts the lines that it prints. */
function run(command: string, ...args: readonly string[]): Promise<Run> {
  return new Promise((resolve, reject) => {
    const begun = performance.now();
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'ignore'] });
    let [most, lines] = [0, 0];
    const look = setInterval(() => (most = Math.max(most, peakOf(child.pid ?? 0))), 50);
    child.stdout.on('data', (part: Buffer) => {
      for (const byte of part) if (byte === 10) lines += 1;
    });
    child.on('error', reject);
    child.on('close', () => {
      clearInterval(look);
      resolve({ seconds: (performance.now() - begun) / 1000, megabytes: most, lines });
    });
  });
}

function peakOf(pid: number): number {
  try {
    return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1000;
  } catch {
    return 0; // it has ended meanwhile
  }
}

export async function captureFigures(): Promise<readonly Figure[]> {
  const path = written();
  const fields = ['frame.time_epoch', 'dhcp.hw.mac_addr', 'dhcp.ip.your', 'dhcp.option.hostname'];
  const asked = ['-r', path, '-Y', 'dhcp', '-T', 'fields'];
  const [ours, theirs]: [Run[], Run[]] = [[], []];
  for (let time = 0; time < TIMES; time += 1) {
    ours.push(await run(process.execPath, join(ROOT, 'server/dist/ipsonomo.js'), 'pcap', path));
    theirs.push(await run('tshark', ...asked, ...fields.flatMap((field) => ['-e', field])));
  }
  rmSync(path);
  const same = ours.every(({ lines }, at) => lines === theirs[at]?.lines);
  const seconds = (all: readonly Run[]) => median(all.map((one) => one.seconds));
  const megabytes = (all: readonly Run[]) => Math.max(...all.map((one) => one.megabytes));
  const [own, other] = [seconds(ours), seconds(theirs)];
  return [
    {
      what: `a capture of ${MEGABYTES} MB to its ${ours[0]?.lines} DHCP messages`,
      ours: `${own.toFixed(1)} s`,
      reference: `tshark: ${other.toFixed(1)} s, ${same ? 'as many' : 'another number of'} messages`,
      ...{ wanted: 'at least as fast', isReached: same && own <= other },
    },
    {
      what: 'memory meanwhile',
      ours: `${megabytes(ours).toFixed(0)} MB`,
      reference: `tshark: ${megabytes(theirs).toFixed(0)} MB`,
      ...{ wanted: '≤ 400 MB', isReached: megabytes(ours) <= 400 },
    },
  ];
}
