import fc from 'fast-check';
import { BROADCAST_MAC, LIMITED_BROADCAST, must, parseIpv4, UNSPECIFIED } from '@ipsonomo/core/net';
import { arpFrame, dhcpFrame, dhcpMessageOf, OPTION, rawOption } from '@ipsonomo/core/wire';
import { bootpRequest, mac, tagged } from './frames';

/**
 * Frames that are nearly right: one byte changed, the end cut or stretched, or plain nonsense.
 * @param from MAC of whoever sends them, as text
 */
export function hostileFrames(seed: number, count: number, from: string): readonly Uint8Array[] {
  const sender = mac(from);
  const ends = { from: UNSPECIFIED, fromPort: 68, to: LIMITED_BROADCAST, toPort: 67 };
  const options = [
    rawOption(OPTION.messageType, 1),
    rawOption(OPTION.overload, 3),
    rawOption(OPTION.clientId, new Uint8Array(255)),
    rawOption(OPTION.hostName, '\0\r\n<b>"\\u2028'),
    { code: 82, data: new Uint8Array(300) },
  ];
  const request = { operation: 'request', transaction: 7, clientMac: sender, options } as const;
  const address = must(parseIpv4('10.77.0.101'));
  const good = [
    bootpRequest(sender, 7),
    tagged(bootpRequest(sender, 8), 0),
    dhcpFrame(sender, ends, dhcpMessageOf(request)),
    arpFrame(sender, BROADCAST_MAC, {
      operation: 'reply',
      senderMac: sender,
      senderAddress: address,
      targetMac: BROADCAST_MAC,
      targetAddress: address,
    }),
  ];
  const changed = fc
    .record({
      frame: fc.constantFrom(...good),
      at: fc.nat(360),
      byte: fc.nat(255),
      length: fc.oneof(fc.integer({ min: 14, max: 400 }), fc.constant(1514)),
    })
    .map(({ frame, at, byte, length }) => {
      const bytes = new Uint8Array(length);
      bytes.set(frame.subarray(0, length));
      bytes[at % length] = byte;
      return bytes;
    });
  const nonsense = fc
    .tuple(
      fc.constantFrom(0x0800, 0x0806, 0x8892),
      fc.uint8Array({ minLength: 14, maxLength: 600 }),
    )
    .map(([type, bytes]) => {
      bytes[12] = type >>> 8;
      bytes[13] = type & 255;
      return bytes;
    });
  return fc.sample(fc.oneof(changed, nonsense), { numRuns: count, seed });
}
