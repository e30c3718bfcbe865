import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { formatIpv4 } from '../../src/net';
import {
  dhcpFrame,
  dissect,
  encodeWith,
  findOption,
  kindOfMessage,
  OPTION,
  OWN_PCAP,
  pcapHeader,
  pcapRecord,
  framesOfCapture,
  toHex,
  type DhcpMessage,
} from '../../src/wire';

const data = (name: string) => new Uint8Array(readFileSync(join(__dirname, '../data', name)));

const messages = (name: string) =>
  [...framesOfCapture(data(name))].map(({ frame }) => {
    const found = dissect(frame);
    if (found.kind !== 'dhcp') throw new Error(found.kind);
    return { frame, found, message: found.dhcp };
  });

const codes = (message: DhcpMessage) => message.options?.map((option) => option.code);

test('udhcpc and dnsmasq: four messages, read by meaning', () => {
  const heard = messages('udhcpc-with-dnsmasq.pcap').map((one) => one.message);
  expect(heard.map(kindOfMessage)).toEqual(['DISCOVER', 'OFFER', 'REQUEST', 'ACK']);
  // As tshark's dhcp.option.type lists them.
  expect(heard.map(codes)).toEqual([
    [53, 57, 55, 12, 60, 61],
    [53, 54, 51, 1, 28, 3],
    [53, 50, 54, 57, 55, 12, 60, 61],
    [53, 54, 51, 1, 28, 12, 3],
  ]);
  const [first, , , ack] = heard;
  expect(findOption(first?.options ?? [], OPTION.hostName)).toBe('fh2-drive-2');
  expect(findOption(first?.options ?? [], OPTION.vendorClass)).toBe('belloch-d4');
  expect(ack && formatIpv4(ack.yourAddress)).toBe('172.22.40.104');
});

test('bootpc and dnsmasq: a request without any option and its reply', () => {
  const [request, reply] = messages('bootpc-with-dnsmasq.pcap');
  expect(request && [kindOfMessage(request.message), codes(request.message)]).toEqual([
    'BootP request',
    [],
  ]);
  expect(reply && formatIpv4(reply.message.yourAddress)).toBe('172.22.40.104');
});

test.each(['udhcpc-with-dnsmasq.pcap', 'bootpc-with-dnsmasq.pcap'])(
  '%s: what is read is written again byte for byte',
  (name) => {
    for (const { frame, found, message } of messages(name)) {
      const { ip, udp, ethernet } = found;
      const again = dhcpFrame(
        ethernet.from,
        { from: ip.from, fromPort: udp.fromPort, to: ip.to, toPort: udp.toPort },
        message,
        ethernet.to,
      );
      // The IP header's identification, type of service and flags are the sender's own choice.
      expect(toHex(again.subarray(42))).toBe(toHex(frame.subarray(42)));
    }
    const file = data(name);
    const records = [...framesOfCapture(file)].map((one) => encodeWith(pcapRecord(OWN_PCAP), one));
    const header = encodeWith(pcapHeader, OWN_PCAP);
    expect(Buffer.concat([header, ...records]).equals(Buffer.from(file))).toBe(true);
  },
);
