export {
  boxesOf,
  cornersOf,
  foldedPicture,
  isLarge,
  linesOf,
  placed,
  within,
  type Box,
  type FoldedLane,
  type PlacedPicture,
} from './layout';
export {
  drawnRoute,
  pictureOf,
  type DrawnRoute,
  type Joiner,
  type Lane,
  type LaneDevice,
  type Picture,
} from './picture';
