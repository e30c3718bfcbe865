import { lastOf, prefixOf, type Ipv4, type Prefix } from '../net';
import type { RouteNet, RoutePort } from './net';
import { judge, predict, type Question, type RouteVerdict } from './predict';
import { rangeAt } from './prefix-table';
import { PreparedNet, type PreparedHost } from './prepared';
import { walk, type Walk } from './walk';

/** Interfaces that stand alike: whatever works for one of them works for all. */
interface AlikeGroup {
  /** Of `RoutePort`. */
  readonly ports: readonly string[];
}

/** Who can talk with whom. */
interface RouteMatrix {
  readonly groups: readonly AlikeGroup[];
  /** For groups a and b at `a * groups.length + b`: what a question of a to b comes to. */
  readonly verdicts: readonly (RouteVerdict | undefined)[];
  readonly pairs: { readonly all: number; readonly works: number };
}

interface Member {
  readonly host: PreparedHost;
  readonly port: RoutePort;
}

/**
 * R-MATRIX: every interface asked from every other. Interfaces on one link with the same mask, gateway and no
 * routes of their own, whose addresses no table tells apart, are worked out once.
 */
export function routeMatrix(net: RouteNet): RouteMatrix {
  const prepared = new PreparedNet(net);
  const groups = alikeGroups(prepared);
  const verdicts: (RouteVerdict | undefined)[] = Array.from({ length: groups.length ** 2 });
  let [all, works] = [0, 0];
  groups.forEach((a, x) => {
    for (let y = x; y < groups.length; y += 1) {
      const b = groups[y] ?? [];
      const [from] = a;
      const to = x === y ? a[1] : b[0];
      if (!from || !to || from.host === to.host) continue;
      const both = thereAndThere(prepared, from, to);
      const count = x === y ? (a.length * (a.length - 1)) / 2 : a.length * b.length;
      all += 2 * count;
      for (const verdict of both) if (verdict.works) works += count;
      [verdicts[x * groups.length + y], verdicts[y * groups.length + x]] = both;
    }
  });
  return {
    groups: groups.map((members) => ({ ports: members.map(({ port }) => port.id) })),
    verdicts,
    pairs: { all, works },
  };
}

/**
 * Each asked by the other. Where nothing is translated, the way there of the one is the way back of the other,
 * and both are walked once.
 */
function thereAndThere(net: PreparedNet, a: Member, b: Member): [RouteVerdict, RouteVerdict] {
  const question = (from: Member, to: Member): Question => ({
    ...{ from: from.host, as: from.port.address, to: to.port.address, meant: to.host },
  });
  const way = (from: Member, to: Member) =>
    walk(net, from.host, to.port.address, from.port.address, undefined);
  const [there, back] = [way(a, b), way(b, a)];
  const ask = (from: Member, to: Member, one: Walk, other: Walk): RouteVerdict =>
    one.memory.length + other.memory.length > 0
      ? predict(net, question(from, to)).verdict
      : judge(question(from, to), one, () => other).verdict;
  return [ask(a, b, there, back), ask(b, a, back, there)];
}

function alikeGroups(net: PreparedNet): readonly (readonly Member[])[] {
  const cells = new Cells(net);
  const groups = new Map<string, Member[]>();
  for (const host of net.hosts)
    for (const port of host.host.ports) {
      const key = cells.keyOf(host, port);
      const group = groups.get(key);
      if (group) group.push({ host, port });
      else groups.set(key, [{ host, port }]);
    }
  return [...groups.values()];
}

/** Addresses between which no table, translation or broadcast of the site makes a difference. */
class Cells {
  private readonly starts: Float64Array;
  /** Addresses that somebody sends to as a gateway, and those that two have: like no other. */
  private readonly special = new Set<Ipv4>();

  constructor(net: PreparedNet) {
    const starts = new Set<number>([0]);
    const mark = (prefix: Prefix) => {
      const last = lastOf(prefix);
      for (const start of [prefix.network, last, last + 1]) starts.add(start);
    };
    const seen = new Set<string>();
    for (const { host } of net.hosts) {
      for (const port of host.ports) {
        mark(prefixOf(port.address, port.length));
        if (port.gateway !== undefined) this.special.add(port.gateway);
        const held = `${port.link} ${port.address}`;
        if (seen.has(held)) this.special.add(port.address);
        seen.add(held);
      }
      for (const { to, via } of host.routes) {
        mark(to);
        this.special.add(via);
      }
      for (const one of host.translations) {
        mark(one.inside);
        if (one.kind === 'one-to-one') mark(one.outside);
        else this.special.add(one.outside);
      }
    }
    this.starts = Float64Array.from(starts).sort();
  }

  keyOf({ host }: PreparedHost, port: RoutePort): string {
    const isPlain =
      host.ports.length === 1 &&
      !host.forwards &&
      host.routes.length === 0 &&
      !this.special.has(port.address);
    if (!isPlain) return `${host.id} ${port.id}`;
    return `${port.link} ${port.length} ${port.gateway ?? ''} ${rangeAt(this.starts, port.address)}`;
  }
}

/** How many pairs of interfaces of two links can talk. */
export interface LinkCell {
  readonly from: string;
  readonly to: string;
  readonly works: number;
  readonly all: number;
}

/** The matrix by links: a cell for each two of them that have anybody who could ask, itself with itself included. */
export function linkCells(net: RouteNet, { groups, verdicts }: RouteMatrix): readonly LinkCell[] {
  const links = new Map(net.hosts.flatMap(({ ports }) => ports.map(({ id, link }) => [id, link])));
  const cells = new Map<string, LinkCell>();
  const linkOf = ({ ports: [first = ''] }: AlikeGroup) => links.get(first) ?? '';
  groups.forEach((a, x) =>
    groups.forEach((b, y) => {
      const verdict = verdicts[x * groups.length + y];
      if (!verdict) return;
      const count = a.ports.length * (x === y ? a.ports.length - 1 : b.ports.length);
      const [from, to] = [linkOf(a), linkOf(b)];
      const cell = cells.get(`${from} ${to}`) ?? { from, to, works: 0, all: 0 };
      const works = cell.works + (verdict.works ? count : 0);
      cells.set(`${from} ${to}`, { ...cell, works, all: cell.all + count });
    }),
  );
  return [...cells.values()];
}
