import { formatIpv4 } from '@ipsonomo/core/net';
import type { Hop, RoutePort, ThereAndBack, Walk } from '@ipsonomo/core/routes';

// A route there and back as it is drawn: hosts one below the other, passed on the way down, on the way up, or both.

export interface TurnRow {
  readonly id: string;
  readonly title: string;
  readonly there: boolean;
  readonly back: boolean;
  /** The addresses it is passed at. */
  readonly addresses: readonly { readonly address: string; readonly length: number }[];
  /** What is special about it, in a few words. */
  readonly says: string;
}

export interface TurnLine {
  /** From who asks, at the top, to the target. */
  readonly rows: readonly TurnRow[];
  /** Where it ends too early; undefined where it comes back. */
  readonly end: { readonly direction: 'there' | 'back'; readonly row: number } | undefined;
}

interface Passed {
  readonly id: string;
  readonly title: string;
  readonly ports: readonly RoutePort[];
  readonly says: string;
}

/** @param target shown at the end where it is not reached */
export function turnLineOf(
  { there, back, verdict }: ThereAndBack,
  target: { readonly id: string; readonly title: string; readonly port: RoutePort } | undefined,
): TurnLine {
  const down = passed(there);
  const up = back ? passed(back).reverse() : [];
  const rows = merged(down, up);
  const reached = verdict.works || verdict.direction === 'back';
  if (!reached && target && !rows.some(({ id }) => id === target.id))
    rows.push({
      ...{ id: target.id, title: target.title, there: false, back: false, says: '' },
      addresses: [addressOf(target.port)],
    });
  if (verdict.works) return { rows, end: undefined };
  const row = rows.findIndex(({ id }) => id === verdict.at.host.id);
  return { rows, end: { direction: verdict.direction, row } };
}

const addressOf = ({ address, length }: RoutePort) => ({ address: formatIpv4(address), length });

/** Each host once, in order; a loop would go on for ever. */
function passed({ hops }: Walk): Passed[] {
  const all: Passed[] = [];
  for (const hop of hops) {
    if (all.some(({ id }) => id === hop.host.host.id)) break;
    const { id, title } = hop.host.host;
    all.push({ id, title, ports: portsOf(hop), says: saysOf(hop) });
  }
  return all;
}

const portsOf = ({ in: came, out, host }: Hop): readonly RoutePort[] => {
  const ports = [came, out].filter((port) => port !== undefined);
  const own = ports.length > 0 ? ports : host.host.ports.slice(0, 1);
  return [...new Set(own)];
};

const saysOf = ({ proxied, asked }: Hop): string =>
  proxied && asked !== undefined ? `another answers for ${formatIpv4(asked)}` : '';

/** Both ways in one list: who is passed only on the way back stands before the next that both pass. */
function merged(down: readonly Passed[], up: readonly Passed[]): TurnRow[] {
  const rows: TurnRow[] = [];
  const left = [...up];
  const take = (one: Passed, there: boolean, back: Passed | undefined) => {
    const ports = [...new Set([...one.ports, ...(back?.ports ?? [])])];
    const says = one.says || (back?.says ?? '');
    rows.push({
      ...{ id: one.id, title: one.title, there, back: back !== undefined, says },
      addresses: ports.map(addressOf),
    });
  };
  for (const one of down) {
    const at = left.findIndex(({ id }) => id === one.id);
    for (const other of at > 0 ? left.splice(0, at) : []) take(other, false, other);
    take(one, true, at >= 0 ? left.shift() : undefined);
  }
  // What comes home to somebody else is drawn above all.
  for (const other of left.reverse()) {
    take(other, false, other);
    const row = rows.pop();
    if (row) rows.unshift(row);
  }
  return rows;
}
