import { decide } from '@ipsonomo/core/answering';
import {
  LIMITED_BROADCAST,
  must,
  parseIpv4,
  parseMac,
  toPrefixLength,
  UNSPECIFIED,
} from '@ipsonomo/core/net';
import { dhcpFrame, dhcpMessageOf, dissect, OPTION, rawOption } from '@ipsonomo/core/wire';

// How many requests a second core reads, decides and answers, whole frames with their checksums.
// Prints one figure a second, for the runs after the first.

const ip = (text: string) => must(parseIpv4(text));
const client = must(parseMac('02:00:5e:00:53:11'));
const laptop = must(parseMac('02:00:5e:00:53:f0'));
const server = ip('172.22.40.250');
const entry = {
  mac: client,
  give: ip('172.22.40.104'),
  length: toPrefixLength(24),
  gateway: ip('172.22.40.1'),
  hostName: 'ox1-valves-1',
  leaseSeconds: 86_400,
};
// What udhcpc sends, option for option.
const options = [
  rawOption(OPTION.messageType, 1),
  rawOption(OPTION.maximumSize, 576),
  rawOption(OPTION.parameterList, Uint8Array.of(1, 3, 6, 12, 15, 28, 42)),
  rawOption(OPTION.hostName, 'fh2-drive-2'),
  rawOption(OPTION.vendorClass, 'belloch-d4'),
  rawOption(OPTION.clientId, Uint8Array.of(1, 2, 0, 0x5e, 0, 0x53, 0x11)),
];
const request = dhcpFrame(
  client,
  { from: UNSPECIFIED, fromPort: 68, to: LIMITED_BROADCAST, toPort: 67 },
  dhcpMessageOf({ operation: 'request', transaction: 7, clientMac: client, options }),
);

function answerOnce(): number {
  const frame = dissect(request);
  if (frame.kind !== 'dhcp') throw new Error(frame.kind);
  const verdict = decide(entry, frame.dhcp, server);
  if (verdict.kind !== 'reply') throw new Error(verdict.reason);
  const ends = { from: server, fromPort: 67, to: verdict.to.address, toPort: verdict.to.port };
  return dhcpFrame(laptop, ends, verdict.message).length;
}

const rates: number[] = [];
for (let run = 0; run < 16; run += 1) {
  const start = performance.now();
  let done = 0;
  while (performance.now() - start < 500) for (let i = 0; i < 1000; i += 1, done += 1) answerOnce();
  rates.push((done * 1000) / (performance.now() - start));
}
process.stdout.write(`${JSON.stringify(rates.slice(1))}\n`);
