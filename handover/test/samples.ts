import { must, parseIpv4, parseMac, parsePrefix } from '@ipsonomo/core/net';
import {
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Device,
  type Interface,
  type Plan,
  type Subnet,
  type Way,
} from '@ipsonomo/core/plan';
import { formatOf, materialOf, type MaterialWish } from '../src';
import type { FormatId } from '@ipsonomo/core/api';

export const ip = (text: string) => must(parseIpv4(text));
export const mac = (text: string) => must(parseMac(text));

export const HALL = toSubnet({
  ...{ id: 'hall', name: 'Hall\nline', prefix: must(parsePrefix('172.22.40.0/24')) },
  ...{ gateway: ip('172.22.40.1'), dnsSuffix: 'hall.example' },
});

/** Below a /24, and without a gateway. */
export const SMALL = toSubnet({
  ...{ id: 'small', name: 'Press', prefix: must(parsePrefix('10.9.7.64/27')) },
  dnsSuffix: 'press.example',
});

export const WIDE = toSubnet({
  ...{ id: 'wide', name: 'Yard', prefix: must(parsePrefix('10.20.8.0/21')) },
  ...{ gateway: ip('10.20.8.1'), dnsSuffix: 'hall.example' },
});

export function device(
  id: string,
  way: Way,
  at: Partial<Interface> & Pick<Interface, 'address'>,
  fields: Partial<Device> = {},
): Device {
  const own = toInterface({ id: `${id}-at`, deviceId: id, subnetId: 'hall', ...at });
  const named = { id, title: `Device ${id}`, name: `fh-${id}`, kindId: 'k', way };
  return toDevice({ ...named, interfaces: [own], ...fields });
}

export const planWith = (devices: readonly Device[], subnets: readonly Subnet[] = [HALL]): Plan =>
  toPlan({ subnets, devices });

export const material = (plan: Plan, wish: Partial<MaterialWish> = {}) =>
  materialOf({ job: 'Tern Cove', revision: 7, at: Date.UTC(2026, 10, 30), plan, ...wish });

/** What a format writes. */
export async function written(id: FormatId, plan: Plan, wish: Partial<MaterialWish> = {}) {
  const format = formatOf(id);
  if (!format) throw new Error(`no format ${id}`);
  return format.write(material(plan, wish));
}

/** The one text that a format writes. */
export async function textOf(id: FormatId, plan: Plan, wish: Partial<MaterialWish> = {}) {
  const { files, left } = await written(id, plan, wish);
  const [file] = files;
  if (files.length !== 1 || typeof file?.content !== 'string') throw new Error('not one text');
  return { text: file.content, name: file.name, left };
}
