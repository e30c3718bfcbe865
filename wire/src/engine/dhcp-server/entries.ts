import {
  isPort,
  namesSaid,
  relayPortOf,
  type HeardClient,
  type RelayPort,
} from '@ipsonomo/core/answering';
import { formatMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import { fromLatin1, toHex, type DhcpMessage, type Dissected } from '@ipsonomo/core/wire';
import type { FieldTarget } from '../../protocol';

export type DhcpFrame = Extract<Dissected, { kind: 'dhcp' }>;

export interface Pending {
  readonly request: DhcpFrame;
  readonly frame: Uint8Array;
}

/** What giving remembers of one planned, bound interface. */
export interface Entry {
  /** With the MAC that counts: where a name or a port is the key, the one that asked under it last. */
  target: FieldTarget;
  /** Who asked under its name or port, the last one last. */
  askers: readonly { readonly mac: MacAddress; readonly at: number }[];
  /** Two that both go on asking under it. */
  doubled: { readonly one: MacAddress; readonly other: MacAddress } | undefined;
  /** When the address was last found free or in the right hands. */
  clearAt: number;
  taken: { readonly mac: MacAddress; readonly at: number } | undefined;
  /** `rounds` of questions that somebody spoke into before. */
  probe: { sent: number; nextAt: number; readonly rounds: number } | undefined;
  /** When a round of questions began last. */
  askedAt: number;
  pending: Pending | undefined;
  /** When to ask whether the device took what it was given. */
  confirms: number[];
  holds: boolean;
  seen: boolean;
  lastAsked: number;
  /** The MAC whose asking was told last. */
  toldOf: MacAddress | undefined;
  lastAnswered: number;
}

const MOST_ASKERS = 8;
/** Two count as asking side by side under one name within this time: longer than two full pauses. */
const KEY_WINDOW = 180_000;
const freshEntry = (target: FieldTarget): Entry => ({
  target,
  askers: [],
  doubled: undefined,
  clearAt: -Infinity,
  taken: undefined,
  probe: undefined,
  askedAt: -Infinity,
  pending: undefined,
  confirms: [],
  holds: target.holds,
  seen: false,
  lastAsked: -Infinity,
  toldOf: undefined,
  lastAnswered: -Infinity,
});

/** What was seen of the one counts for the other. */
const isSame = (before: FieldTarget, now: FieldTarget): boolean =>
  before.address === now.address &&
  JSON.stringify(before.key) === JSON.stringify(now.key) &&
  (now.key.by !== 'mac' || before.mac === now.mac);

/** Does a client that was heard say the name, or come in at the port? */
export function saysKey({ traits, port }: HeardClient, key: FieldTarget['key']): boolean {
  if (key.by === 'port')
    return key.port !== undefined && port !== undefined && isPort(key.port, port);
  if (key.by !== 'name') return false;
  const id = toHex(fromLatin1(key.name));
  return traits.hostName === key.name || traits.clientId === id || traits.clientId === `00${id}`;
}

export function doubledFacts({ doubled, target: { key } }: Entry) {
  if (!doubled) return undefined;
  const under = key.by === 'name' ? { under: 'name', name: key.name } : { under: 'port' };
  return { ...under, one: formatMac(doubled.one), other: formatMac(doubled.other) };
}

/** Planned interfaces by what they are recognised by: a MAC, a name, a port, an address. */
export class Entries {
  private readonly byId = new Map<string, Entry>();
  private readonly byMac = new Map<MacAddress, Entry>();
  private readonly byName = new Map<string, Entry>();
  private readonly byPort: { readonly port: RelayPort; readonly entry: Entry }[] = [];
  private readonly byAddress = new Map<Ipv4, Entry>();

  /** @param learned under its name or port another MAC asks now */
  constructor(private readonly learned: (target: FieldTarget) => void) {}

  /** Takes the plan anew and keeps what is known of those that did not change; the others are returned. */
  plan(targets: readonly FieldTarget[]): readonly Entry[] {
    const known = new Map(this.byId);
    this.clear();
    return targets.flatMap((target) => {
      if (target.mac === undefined && target.key.by === 'mac') return [];
      const before = known.get(target.interfaceId);
      const same = before !== undefined && isSame(before.target, target);
      const entry: Entry = same
        ? { ...before, target: { ...target, mac: before.target.mac } }
        : freshEntry(target);
      this.enter(entry);
      return same ? [] : [entry];
    });
  }

  values(): Iterable<Entry> {
    return this.byId.values();
  }

  get size(): number {
    return this.byId.size;
  }

  of(interfaceId: string): Entry | undefined {
    return this.byId.get(interfaceId);
  }

  ofMac(mac: MacAddress): Entry | undefined {
    return this.byMac.get(mac);
  }

  ofAddress(address: Ipv4): Entry | undefined {
    return this.byAddress.get(address);
  }

  forgetAskers(): void {
    for (const entry of this.byId.values()) {
      entry.askers = [];
      entry.doubled = undefined;
    }
  }

  /** Whose request it is: by the MAC where that is the key, else by the name it says or the port it came in at. */
  recognise(request: DhcpMessage, now: number): Entry | undefined {
    const mac = request.clientMac;
    const own = this.byMac.get(mac);
    if (own?.target.key.by === 'mac') return own;
    const port = this.byPort.length > 0 ? relayPortOf(request) : undefined;
    const keyed =
      (port && this.byPort.find((one) => isPort(one.port, port))?.entry) ??
      namesSaid(request).flatMap((name) => this.byName.get(name) ?? [])[0];
    if (keyed) this.asksUnder(keyed, mac, now);
    return keyed;
  }

  /**
   * R-KEY-TWINS: another MAC under the same name or port is a device that was swapped, unless the first
   * speaks again after the second did: then there are two, and neither is answered.
   */
  asksUnder(entry: Entry, mac: MacAddress, now: number): void {
    const last = entry.askers.at(-1);
    const fresh = entry.askers.filter((one) => now - one.at < KEY_WINDOW);
    if (last && last.mac !== mac && fresh.includes(last) && fresh.some((one) => one.mac === mac))
      entry.doubled ??= { one: last.mac, other: mac };
    entry.askers = [...fresh.filter((one) => one.mac !== mac), { mac, at: now }].slice(
      -MOST_ASKERS,
    );
    const { target } = entry;
    if (target.mac === mac) return;
    if (target.mac !== undefined && this.byMac.get(target.mac) === entry)
      this.byMac.delete(target.mac);
    entry.target = { ...target, mac };
    entry.holds = false;
    this.byMac.set(mac, entry);
    this.learned(entry.target);
  }

  private enter(entry: Entry): void {
    const { interfaceId, mac, key, address } = entry.target;
    this.byId.set(interfaceId, entry);
    if (mac !== undefined) this.byMac.set(mac, entry);
    if (key.by === 'name') this.byName.set(key.name, entry);
    if (key.by === 'port' && key.port) this.byPort.push({ port: key.port, entry });
    this.byAddress.set(address, entry);
  }

  private clear(): void {
    this.byId.clear();
    this.byMac.clear();
    this.byName.clear();
    this.byPort.length = 0;
    this.byAddress.clear();
  }
}
