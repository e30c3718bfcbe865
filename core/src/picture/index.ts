export {
  drawnRoute,
  pictureOf,
  type DrawnRoute,
  type Joiner,
  type Lane,
  type LaneDevice,
  type Picture,
} from './picture';
