import type { AdapterView, JobView } from '@ipsonomo/core/api';
import { containsAddress, parseIpv4, parsePrefix } from '@ipsonomo/core/net';

/** An adapter of this machine that is in a subnet of the plan, though it is not the wire in use. */
export interface OfficeClash {
  readonly adapter: string;
  readonly address: string;
  readonly subnet: string;
}

/**
 * Where the office or the radio has the same subnet as a machine: answers would go the wrong way, and a browser
 * would ask the wrong device.
 * @param live the adapter that is listened on; it may have an address there
 */
export const officeClashes = (
  subnets: JobView['subnets'],
  adapters: readonly AdapterView[],
  live: string | undefined,
): readonly OfficeClash[] =>
  adapters
    .filter(({ name }) => name !== live)
    .flatMap(({ name: adapter, addresses }) =>
      addresses.flatMap((address) => {
        const read = parseIpv4(address);
        const subnet = subnets.find(({ network }) => {
          const prefix = parsePrefix(network);
          return read.ok && prefix.ok && containsAddress(prefix.value, read.value);
        });
        return subnet ? [{ adapter, address, subnet: subnet.name }] : [];
      }),
    );
