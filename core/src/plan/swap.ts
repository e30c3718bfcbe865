import type { Ipv4, Prefix, Result } from '../net';
import type { SwitchFace, SwitchSetting } from '../switches';
import { guideOf, type Kind } from './kind';

import { findSubnet, type Device, type Interface, type Plan } from './model';
import { dhcpNameOf, stationNameOf } from './naming';
import { findKind } from './shelf';
import { wantedSetting } from './switch-setting';
import type { Way } from './words';

/** One step of a swap, for somebody who was never told about the plan. */
export type SwapStep =
  /** The spare has to be this, and no newer revision without a look at the plan. */
  | { readonly kind: 'same-kind'; readonly device: Kind }
  /** What has to be switched off or left first. */
  | { readonly kind: 'first'; readonly words: string }
  | { readonly kind: 'power-off' }
  /** The cable goes back into the same port; where a port is the key, that gives the address. */
  | { readonly kind: 'cable'; readonly isKey: boolean }
  | {
      readonly kind: 'switches';
      readonly face: SwitchFace;
      readonly setting: Result<SwitchSetting>;
      readonly network: Prefix;
    }
  | { readonly kind: 'card' }
  | { readonly kind: 'keypad'; readonly address: Ipv4; readonly steps: readonly string[] }
  | { readonly kind: 'power-on'; readonly seconds: number }
  /** What was typed counts from its next start on. */
  | { readonly kind: 'restart'; readonly seconds: number }
  /** Somebody has to answer it: a service that knows the name, or the controller. */
  | { readonly kind: 'answered'; readonly by: 'controller' | 'service'; readonly name: string }
  /** Only with a laptop: its call, with the new MAC. */
  | { readonly kind: 'laptop'; readonly way: Way; readonly name: string | undefined }
  | { readonly kind: 'parameters'; readonly from: Device['restores'] }
  | { readonly kind: 'password'; readonly at: string }
  | { readonly kind: 'look'; readonly address: Ipv4 };

interface Swap {
  readonly needsLaptop: boolean;
  readonly steps: readonly SwapStep[];
}

/** Ways in which the spare gets the address from what is turned, plugged or put into it. */
const WITHOUT_LAPTOP: readonly Way[] = ['switches', 'dhcp-name', 'dhcp-port', 'card', 'keypad'];

/**
 * R-SWAP: how a dead device is replaced, in the order of the hands. Without a laptop where its way allows that: its
 * switches make the address or the name, the port does, a card or a keypad; a name given over layer 2 needs one,
 * unless the switches make that name too.
 */
export function swapOf(plan: Plan, device: Device, at: Interface): Swap | undefined {
  const kind = findKind(plan, device.kindId);
  const network = findSubnet(plan, at.subnetId)?.prefix;
  if (!kind || !network) return undefined;
  const face = kind.switches;
  const setting = face && wantedSetting(face, device, at.address, network);
  const bySwitches = isNamedBySwitches(device, setting);
  const needsLaptop = !WITHOUT_LAPTOP.includes(device.way) && !bySwitches;
  const guide = guideOf(kind, device.way);
  const steps: SwapStep[] = [{ kind: 'same-kind', device: kind }];
  for (const words of guide?.first ?? []) steps.push({ kind: 'first', words });
  steps.push({ kind: 'power-off' });
  steps.push({ kind: 'cable', isKey: device.way === 'dhcp-port' });
  if (face && setting) steps.push({ kind: 'switches', face, setting, network });
  if (device.way === 'card' || device.restores === 'card') steps.push({ kind: 'card' });
  steps.push({ kind: 'power-on', seconds: kind.bootSeconds });
  if (device.way === 'keypad') {
    steps.push({ kind: 'keypad', address: at.address, steps: guide?.steps ?? [] });
    steps.push({ kind: 'restart', seconds: kind.bootSeconds });
  }
  const answered = answeredBy(device, bySwitches);
  if (answered) steps.push(answered);
  if (needsLaptop) steps.push({ kind: 'laptop', way: device.way, name: nameFor(device) });
  steps.push({ kind: 'parameters', from: device.restores });
  if (device.passwordAt !== '') steps.push({ kind: 'password', at: device.passwordAt });
  steps.push({ kind: 'look', address: at.address });
  return { needsLaptop, steps };
}

const nameFor = (device: Device): string | undefined =>
  device.way === 'layer2-name' || device.way === 'controller' ? stationNameOf(device) : undefined;

/** Do the switches make the name under which its controller looks for it? */
const isNamedBySwitches = (device: Device, setting: Result<SwitchSetting> | undefined): boolean =>
  (device.way === 'controller' || device.way === 'layer2-name') &&
  setting?.ok === true &&
  setting.value.act?.kind === 'name';

function answeredBy(device: Device, bySwitches: boolean): SwapStep | undefined {
  if (device.way === 'dhcp-name')
    return { kind: 'answered', by: 'service', name: dhcpNameOf(device) };
  if (device.way === 'dhcp-port') return { kind: 'answered', by: 'service', name: '' };
  if (bySwitches) return { kind: 'answered', by: 'controller', name: stationNameOf(device) };
  return undefined;
}
