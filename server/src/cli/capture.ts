import { readFileSync } from 'node:fs';
import { traitsOf } from '@ipsonomo/core/answering';
import { optionView } from '@ipsonomo/language';
import { formatIpv4, formatMac, UNSPECIFIED, type Issue } from '@ipsonomo/core/net';
import {
  DecodeError,
  kindOfMessage,
  readPcap,
  tryDissect,
  type DhcpMessage,
} from '@ipsonomo/core/wire';
import { refuseInput, type OneCommand, type Output } from './output';

/** Every BootP and DHCP message of a capture, in its order. */
export const readCapture: OneCommand = (path, output) => {
  let bytes: Uint8Array;
  try {
    bytes = new Uint8Array(readFileSync(path));
  } catch {
    return refuseInput(output, { code: 'file.missing', where: path });
  }
  try {
    printMessages(bytes, path, output);
    return true;
  } catch (error) {
    if (!(error instanceof DecodeError)) throw error;
    return refuseInput(output, issueOf(path, error));
  }
};

function printMessages(bytes: Uint8Array, path: string, { print, tell }: Output): void {
  let number = 0;
  let unread = 0;
  for (const { frame, at } of readPcap(bytes)) {
    number += 1;
    const found = tryDissect(frame);
    if (found instanceof DecodeError) unread += 1;
    else if (found.kind === 'dhcp') print(messageLine(found.dhcp, at));
  }
  if (unread > 0) tell(`${path}: ${unread} of ${number} frames could not be read.`);
}

/** @param at microseconds since 1970 */
function messageLine(message: DhcpMessage, at: number) {
  const { hostName, vendorClass, clientId } = traitsOf(message);
  const micros = String(at % 1_000_000).padStart(6, '0');
  return {
    time: `${new Date(Math.floor(at / 1000)).toISOString().slice(0, 19)}.${micros}Z`,
    kind: kindOfMessage(message),
    mac: formatMac(message.clientMac),
    /** What a reply gives; null in a request. */
    address: message.yourAddress === UNSPECIFIED ? null : formatIpv4(message.yourAddress),
    names: {
      host: hostName ?? null,
      vendorClass: vendorClass ?? null,
      clientId: clientId ?? null,
    },
    options: (message.options ?? []).map(optionView),
  };
}

const PCAPNG = 0x0a0d0d0a;

function issueOf(path: string, error: DecodeError): Issue {
  if (error.code === 'pcap.magic')
    return { code: error.have === PCAPNG ? 'pcap.newer' : 'pcap.magic', where: path };
  if (error.code === 'pcap.link') return { code: 'pcap.link', where: path };
  if (error.code === 'pcap.header') return { code: 'pcap.magic', where: path };
  return { code: 'pcap.cut', where: path, facts: { at: error.at } };
}
