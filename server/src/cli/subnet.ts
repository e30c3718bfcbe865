import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import {
  broadcastOf,
  containsAddress,
  firstHostOf,
  formatIpv4,
  hostCountOf,
  lastHostOf,
  maskOf,
  parseIpv4,
  parseMask,
  parsePrefix,
  prefixOf,
  specialBlocksWithin,
  type Ipv4,
  type Prefix,
  type PrefixLength,
} from '@ipsonomo/core/net';
import { refuseInput, type Command, type Output } from './output';

/**
 * What networks are: `172.22.40.0/24`, the network that an address with its prefix length is in, or an address and its
 * mask as two words.
 */
export const subnet: Command = (inputs, output) => {
  let isGood = true;
  for (let at = 0; at < inputs.length; at += 1) {
    const [input = '', next = ''] = inputs.slice(at, at + 2);
    const [address, mask] = [parseIpv4(input), parseMask(next)];
    if (address.ok && mask.ok) {
      at += 1;
      print(output, address.value, mask.value);
    } else isGood = one(input, output) && isGood;
  }
  return isGood;
};

function one(input: string, output: Output): boolean {
  const [text = '', length = ''] = input.split('/');
  const address = parseIpv4(text);
  // Read with the network's own address, the length is told what is wrong with it.
  const read = parsePrefix(
    address.ok && /^\d+$/.test(length) ? networkText(address.value, length) : input,
  );
  if (!read.ok) return refuseInput(output, { ...read.error, where: input });
  print(output, address.ok ? address.value : read.value.network, read.value.length);
  return true;
}

const networkText = (address: Ipv4, length: string): string =>
  Number(length) > 32
    ? `${formatIpv4(address)}/${length}`
    : `${formatIpv4(prefixOf(address, Number(length) as PrefixLength).network)}/${length}`;

/** A /31 and a /32 have no broadcast address (null). */
function print(output: Output, address: Ipv4, length: PrefixLength): void {
  const prefix = prefixOf(address, length);
  const broadcast = broadcastOf(prefix);
  output.print({
    network: formatIpv4(prefix.network),
    prefix: prefix.length,
    mask: formatIpv4(maskOf(prefix.length)),
    broadcast: broadcast === undefined ? null : formatIpv4(broadcast),
    first: formatIpv4(firstHostOf(prefix)),
    last: formatIpv4(lastHostOf(prefix)),
    hosts: hostCountOf(prefix),
    blocks: specialBlocksWithin(prefix).map((block) => block.name),
    ...(address === prefix.network
      ? {}
      : { address: formatIpv4(address), stands: placeOf(address, prefix) }),
  });
}

/** Where an address stands in its network, counted from the network's own. */
function placeOf(address: Ipv4, prefix: Prefix): string {
  if (broadcastOf(prefix) === address) return COMMAND_WORDS.theBroadcastAddress;
  const isHost = containsAddress(prefix, address);
  return isHost
    ? COMMAND_WORDS.hostOf({ number: address - prefix.network, all: hostCountOf(prefix) })
    : COMMAND_WORDS.outside;
}
