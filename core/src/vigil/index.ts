export {
  AWAITED,
  bucketsOf,
  LOST,
  NOT_ASKED,
  outagesOf,
  periodOf,
  summaryOf,
  tenthsOf,
  type Bucket,
  type VigilSummary,
} from './series';
export { secondsOf, worstWatched, type VigilState } from './state';
