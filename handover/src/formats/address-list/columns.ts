import { formatIpv4, formatMac, formatPrefix, maskOf } from '@ipsonomo/core/net';
import {
  findKind,
  findSubnet,
  gatewayOf,
  maskLengthOf,
  stationNameOf,
  WAY_WORDS,
  type PlannedInterface,
} from '@ipsonomo/core/plan';
import { evidenceWords, STAGE_WORDS } from '@ipsonomo/language';
import { LIST_HEADS } from '@ipsonomo/language/hand-over-files';
import { LIST_OUT, type ListOut } from '@ipsonomo/core/api';
import type { Material } from '../../format';
import { localTime } from '../../parts/head';

type Cell = string | number;
type CellOf = (material: Material, one: PlannedInterface) => Cell;

const subnetOf = ({ plan }: Material, { at }: PlannedInterface) => findSubnet(plan, at.subnetId);
const kindOf = ({ plan }: Material, { device }: PlannedInterface) => findKind(plan, device.kindId);

const CELLS: Readonly<Record<ListOut, CellOf>> = {
  device: (_, { device }) => device.title,
  host: (_, { device }) => device.name,
  station: (_, { device }) => stationNameOf(device),
  area: (_, { device }) => device.area,
  cabinet: (_, { device }) => device.cabinet,
  position: (_, { device }) => device.position,
  maker: (all, one) => kindOf(all, one)?.maker ?? '',
  kind: (all, one) => kindOf(all, one)?.name ?? '',
  orderNumber: (all, one) => kindOf(all, one)?.orderNumber ?? '',
  serial: (_, { device }) => device.serial,
  subnet: (all, one) => subnetOf(all, one)?.name ?? '',
  network: (all, one) => {
    const subnet = subnetOf(all, one);
    return subnet ? formatPrefix(subnet.prefix) : '';
  },
  vlan: (all, one) => subnetOf(all, one)?.vlan ?? '',
  address: (_, { at }) => formatIpv4(at.address),
  sort: (_, { at }) => at.address,
  mask: (all, one) => {
    const subnet = subnetOf(all, one);
    return subnet ? formatIpv4(maskOf(maskLengthOf(one.at, subnet))) : '';
  },
  gateway: (all, one) => {
    const subnet = subnetOf(all, one);
    const gateway = subnet && gatewayOf(one.at, subnet);
    return gateway === undefined ? '' : formatIpv4(gateway);
  },
  mac: (_, { at }) => (at.mac === undefined ? '' : formatMac(at.mac)),
  way: (_, { device }) => WAY_WORDS[device.way],
  stage: (all, { at }) => STAGE_WORDS[all.seen(at.id).stage],
  evidence: (all, { at }) => {
    const { last } = all.seen(at.id);
    return last ? evidenceWords(last) : '';
  },
  seenAt: (all, { at }) => {
    const { last } = all.seen(at.id);
    return last ? localTime(last.at) : '';
  },
};

/** What sorts by text alone is not wanted twice where a sheet can sort: it has the number beside the address. */
const WITHOUT_SORT = LIST_OUT.filter((one) => one !== 'sort');

const isColumn = (name: string): name is ListOut => (LIST_OUT as readonly string[]).includes(name);

/** The columns that a job wants, in its order; all of them where it says none. */
export function columnsOf({ options }: Material, withSort: boolean): readonly ListOut[] {
  const chosen = options.columns.filter(isColumn);
  if (chosen.length > 0) return chosen;
  return withSort ? LIST_OUT : WITHOUT_SORT;
}

export const headsOf = (columns: readonly ListOut[]): readonly string[] =>
  columns.map((one) => LIST_HEADS[one]);

export const rowsOf = (
  material: Material,
  columns: readonly ListOut[],
): readonly (readonly Cell[])[] =>
  material.chosen.map((one) => columns.map((column) => CELLS[column](material, one)));
