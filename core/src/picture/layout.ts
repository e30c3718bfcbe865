import { graphlib, layout } from '@dagrejs/dagre';
import type { DrawnRoute, Joiner, Lane, LaneDevice, Picture } from './picture';

/** Where a thing stands, by its upper left corner. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface PlacedDevice {
  readonly device: LaneDevice;
  readonly box: Box;
}

/** A lane of which only some devices are drawn. */
export interface FoldedLane extends Lane {
  /** Those that are counted in its place; none where all are drawn. */
  readonly folded?: readonly LaneDevice[];
}

export interface PlacedLane {
  readonly lane: FoldedLane;
  readonly box: Box;
  readonly devices: readonly PlacedDevice[];
  /** Where those that are folded are counted. */
  readonly rest: Box | undefined;
}

export interface PlacedJoiner {
  readonly joiner: Joiner;
  readonly box: Box;
}

export interface PlacedPicture {
  readonly width: number;
  readonly height: number;
  readonly lanes: readonly PlacedLane[];
  readonly joiners: readonly PlacedJoiner[];
}

const CHIP = { width: 168, height: 44, gap: 8 };
const HEAD = 34;
const PAD = 12;
const JOINER = { width: 176, height: 60 };
/** Devices side by side: lanes lie, they do not stand. */
const columnsOf = (count: number): number => Math.min(Math.max(1, count), count > 12 ? 4 : 3);
const MARGIN = 16;

function laneSize(count: number): { readonly width: number; readonly height: number } {
  const columns = columnsOf(count);
  const rows = Math.ceil(Math.max(1, count) / columns);
  return {
    width: 2 * PAD + columns * CHIP.width + (columns - 1) * CHIP.gap,
    height: HEAD + PAD + rows * CHIP.height + (rows - 1) * CHIP.gap,
  };
}

/** A site of so many devices is drawn whole; of a larger one each lane is folded until somebody opens it. */
const MOST_DRAWN = 300;
/** A lane of so few is not worth folding. */
const FEW = 4;

export const isLarge = ({ lanes }: Picture): boolean =>
  lanes.reduce((sum, { devices }) => sum + devices.length, 0) > MOST_DRAWN;

/**
 * A large site with its lanes folded.
 * @param open ids of subnets that are drawn whole
 * @param shown ids of interfaces that are drawn in any case
 */
export function foldedPicture(
  picture: Picture,
  open: ReadonlySet<string>,
  shown: readonly string[],
): Picture & { readonly lanes: readonly FoldedLane[] } {
  if (!isLarge(picture)) return picture;
  const isShown = ({ interfaceId }: LaneDevice) => shown.includes(interfaceId);
  return {
    ...picture,
    lanes: picture.lanes.map((lane) => {
      if (open.has(lane.subnetId) || lane.devices.length <= FEW) return lane;
      const devices = lane.devices.filter(isShown);
      return { ...lane, devices, folded: lane.devices.filter((one) => !isShown(one)) };
    }),
  };
}

const chipsOf = ({ devices, folded = [] }: FoldedLane): number =>
  devices.length + (folded.length > 0 ? 1 : 0);

const laneId = (subnetId: string): string => `lane ${subnetId}`;

/** Lays lanes and joiners out in layers, so that as few lines cross as may be. */
export function placed({
  lanes,
  joiners,
}: {
  readonly lanes: readonly FoldedLane[];
  readonly joiners: readonly Joiner[];
}): PlacedPicture {
  const graph = new graphlib.Graph({ multigraph: false });
  graph.setGraph({ rankdir: 'LR', nodesep: 18, ranksep: 60, marginx: MARGIN, marginy: MARGIN });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const lane of lanes) graph.setNode(laneId(lane.subnetId), laneSize(chipsOf(lane)));
  for (const joiner of joiners) graph.setNode(joiner.id, { ...JOINER });
  for (const [from, to] of edgesOf(joiners)) graph.setEdge(from, to);
  layout(graph);
  const boxOf = (id: string): Box => {
    const { x, y, width, height } = graph.node(id);
    return { x: x - width / 2, y: y - height / 2, width, height };
  };
  const { width = 0, height = 0 } = graph.graph();
  return {
    ...{ width, height },
    lanes: lanes.map((lane) => {
      const box = boxOf(laneId(lane.subnetId));
      const columns = columnsOf(chipsOf(lane));
      const devices = lane.devices.map((device, at) => ({
        device,
        box: chipAt(box, at, columns),
      }));
      const hasRest = (lane.folded?.length ?? 0) > 0;
      const rest = hasRest ? chipAt(box, lane.devices.length, columns) : undefined;
      return { lane, box, devices, rest };
    }),
    joiners: joiners.map((joiner) => ({ joiner, box: boxOf(joiner.id) })),
  };
}

const chipAt = (lane: Box, at: number, columns: number): Box => ({
  x: lane.x + PAD + (at % columns) * (CHIP.width + CHIP.gap),
  y: lane.y + HEAD + Math.floor(at / columns) * (CHIP.height + CHIP.gap),
  ...{ width: CHIP.width, height: CHIP.height },
});

/**
 * Each line once, away from the joiner that joins most: what hangs on it comes after it, layer by layer.
 */
function edgesOf(joiners: readonly Joiner[]): readonly (readonly [string, string])[] {
  const edges: (readonly [string, string])[] = [];
  const placedLanes = new Set<string>();
  const waiting = [...joiners].sort((a, b) => b.lanes.length - a.lanes.length);
  while (waiting.length > 0) {
    // One that touches what is placed already, else the next greatest: another island.
    const touching = waiting.findIndex(({ lanes }) => lanes.some((one) => placedLanes.has(one)));
    const [joiner] = waiting.splice(Math.max(0, touching), 1);
    if (!joiner) break;
    for (const lane of joiner.lanes)
      edges.push(placedLanes.has(lane) ? [laneId(lane), joiner.id] : [joiner.id, laneId(lane)]);
    for (const lane of joiner.lanes) placedLanes.add(lane);
  }
  return edges;
}

/** The lines between joiners and lanes, from edge to edge. */
export function linesOf({ lanes, joiners }: PlacedPicture) {
  const boxes = new Map(lanes.map(({ lane, box }) => [lane.subnetId, box]));
  return joiners.flatMap(({ joiner, box }) =>
    joiner.lanes.flatMap((id) => {
      const lane = boxes.get(id);
      if (!lane) return [];
      const isRight = lane.x > box.x;
      const from = { x: isRight ? box.x + box.width : box.x, y: box.y + box.height / 2 };
      const to = { x: isRight ? lane.x : lane.x + lane.width, y: lane.y + HEAD / 2 };
      return [{ key: `${joiner.id} ${id}`, from, to }];
    }),
  );
}

/** The corners of a way, through the middles of what it passes. */
export function cornersOf(picture: PlacedPicture, ids: DrawnRoute['there'], shift: number): string {
  const boxes = boxesOf(picture);
  return ids
    .flatMap((id) => {
      const box = boxes.get(id);
      return box ? [`${box.x + box.width / 2},${box.y + box.height / 2 + shift}`] : [];
    })
    .join(' ');
}

/** Devices and joiners by their ids. */
export const boxesOf = ({ lanes, joiners }: PlacedPicture): ReadonlyMap<string, Box> =>
  new Map([
    ...lanes.flatMap(({ devices }) =>
      devices.map(({ device, box }) => [device.deviceId, box] as const),
    ),
    ...joiners.map(({ joiner, box }) => [joiner.id, box] as const),
  ]);

/** Whether two boxes have a part in common. */
const touch = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** What of a picture has a part in a box: of a large one only what is seen is drawn. */
export function within(picture: PlacedPicture, seen: Box): PlacedPicture {
  return {
    ...picture,
    lanes: picture.lanes.flatMap((one) =>
      touch(one.box, seen)
        ? [{ ...one, devices: one.devices.filter(({ box }) => touch(box, seen)) }]
        : [],
    ),
    joiners: picture.joiners.filter(({ box }) => touch(box, seen)),
  };
}
