import { formatIpv4, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import { returnsOf, type DrillRow, type DrillState, type Returned } from '@ipsonomo/core/plan';
import {
  findOption,
  kindOfMessage,
  OPTION,
  type DhcpMessage,
  type Dissected,
} from '@ipsonomo/core/wire';
import type { FieldPlan, FieldTarget, RecordEvidence } from '../../protocol';
import type { Unit } from '../unit';

const MOST = 2048;

interface Row {
  readonly mac: MacAddress;
  readonly firstAt: number;
  asked: DrillRow['asked'];
  answered: DrillRow['answered'];
  address: DrillRow['address'];
}

/**
 * R-DRILL: a cold start of a cabinet, watched without a word of ours: it is switched off and on, and who comes back
 * says so by itself: by asking for an address, and by ARP with the one it has. One word of ours, and what comes back
 * may be ours; then the drill says nothing and ends.
 */
export class ColdStart implements Unit {
  private readonly rows = new Map<MacAddress, Row>();
  private phase: DrillState['phase'] = 'none';
  private onAt: number | undefined;
  private endedAt: number | undefined;
  private isCut = false;

  private targets: readonly FieldTarget[] = [];

  constructor(
    private readonly events: { readonly record: RecordEvidence; readonly changed: () => void },
  ) {}

  plan({ targets }: FieldPlan): void {
    this.targets = targets;
  }

  /** The cabinet is about to be switched off. */
  begin(): void {
    this.rows.clear();
    this.phase = 'off';
    this.onAt = undefined;
    this.endedAt = undefined;
    this.events.changed();
  }

  /** It is on again: from here on time is counted, and who speaks has come back. */
  on(now: number): void {
    if (this.phase !== 'off') return;
    this.phase = 'on';
    this.onAt = now;
    this.events.changed();
  }

  /** The laptop's own link goes with the switch of the cabinet, and comes back with it. */
  link(isUp: boolean, now: number): void {
    if (isUp && this.isCut) this.on(now);
    this.isCut = !isUp && this.phase === 'off';
  }

  /** It is over: how each bound device came back is kept. */
  end(person: string, now: number): void {
    if (this.phase !== 'on') {
      this.forget();
      return;
    }
    this.close('ended', now);
    for (const one of returnsOf(this.targets, [...this.rows.values()])) this.keep(one, person);
  }

  private keep({ expected, row, how }: Returned<FieldTarget>, person: string): void {
    const seconds = row && Math.round((row.firstAt - (this.onAt ?? row.firstAt)) / 100) / 10;
    const facts = {
      how,
      ...(seconds === undefined ? {} : { seconds }),
      ...(row?.address ? { has: formatIpv4(row.address.value) } : {}),
      ...(row?.answered ? { by: formatIpv4(row.answered.by) } : {}),
    };
    this.events.record('came-back', expected, facts, { person });
  }

  /** A frame of ours left. */
  spoil(now: number): void {
    if (this.isRunning) this.close('spoiled', now);
  }

  get state(): DrillState {
    const { phase, onAt, endedAt } = this;
    return { phase, onAt, endedAt, rows: [...this.rows.values()].map((row) => ({ ...row })) };
  }

  /** Another run begins. */
  forget(): void {
    this.rows.clear();
    this.phase = 'none';
    this.events.changed();
  }

  sighting(address: Ipv4, mac: MacAddress, _frame: Uint8Array, now: number): void {
    const row = this.rowOf(mac, now);
    if (!row || row.address?.value === address) return;
    row.address = { value: address, at: now };
    this.events.changed();
  }

  frame(frame: Dissected, _bytes: Uint8Array, now: number): void {
    if (frame.kind !== 'dhcp') return;
    if (frame.dhcp.operation === 'request') this.request(frame.dhcp, now);
    else this.reply(frame.dhcp, frame.ip.from, now);
  }

  private request(message: DhcpMessage, now: number): void {
    const row = this.rowOf(message.clientMac, now);
    if (!row) return;
    const { asked } = row;
    row.asked = {
      at: asked?.at ?? now,
      message: kindOfMessage(message),
      count: (asked?.count ?? 0) + 1,
    };
    this.events.changed();
  }

  private reply(message: DhcpMessage, from: Ipv4, now: number): void {
    const row = this.rowOf(message.clientMac, now);
    if (!row) return;
    row.answered = {
      at: now,
      by: findOption(message.options ?? [], OPTION.serverId) ?? from,
      gave: message.yourAddress,
    };
    this.events.changed();
  }

  private get isRunning(): boolean {
    return this.phase === 'on' || this.phase === 'off';
  }

  private rowOf(mac: MacAddress, now: number): Row | undefined {
    if (this.phase !== 'on') return undefined;
    const known = this.rows.get(mac);
    if (known || this.rows.size >= MOST) return known;
    const row: Row = {
      ...{ mac, firstAt: now, asked: undefined, answered: undefined, address: undefined },
    };
    this.rows.set(mac, row);
    return row;
  }

  private close(phase: 'ended' | 'spoiled', now: number): void {
    this.phase = phase;
    this.endedAt = now;
    this.events.changed();
  }
}
