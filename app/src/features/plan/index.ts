// What other features use of this one; its screens are for the routes alone.
export { PlanMore, PlanTools } from './PlanMore';
export { SubnetHead } from './SubnetHead';
export { ConflictPane, conflictsOf } from './conflict/ConflictPane';
export { Compare } from './revisions/Compare';
export { DevicePane } from './device/DevicePane';
export { Seen } from './device/Seen';
