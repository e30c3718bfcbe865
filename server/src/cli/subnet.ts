import {
  broadcastOf,
  firstHostOf,
  formatIpv4,
  hostCountOf,
  lastHostOf,
  maskOf,
  parsePrefix,
  specialBlocksWithin,
} from '@ipsonomo/core';
import { refuseInput, type OneCommand } from './output';

/** What a network is; a /31 and a /32 have no broadcast address (null). */
export const subnet: OneCommand = (input, output) => {
  const read = parsePrefix(input);
  if (!read.ok) return refuseInput(output, read.error);
  const prefix = read.value;
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
  });
  return true;
};
