// The wire as the server's main thread sees it: the one door of this room.
export { adaptersAbove, addressesOf, indexOf, listAdapters } from '../carriers/linux/adapters';
export { undoBorrowings } from '../carriers/linux/borrowed';
export { cameInThrough, noteAdapters } from '../carriers/linux/came-in';
export type { PageBytes } from '../engine/pages/pages';
export { hasCapture, readCapture, removeCapture } from '../kept/capture';
export { journalsIn, readJournal } from '../kept/journal';
export {
  FieldRefusal,
  HeardChanges,
  IDLE,
  Notices,
  planNews,
  stays,
  VigilRing,
  type FieldCommand,
  type FieldEvent,
  type FieldNotice,
  type FieldPlan,
  type FieldStatus,
  type FieldSubnet,
  type FieldTarget,
  type FoundStation,
  type Giving,
  type HeardChange,
  type Sighting,
  type SocketStatus,
} from '../protocol';
export { Field, type FieldListener } from './field';
export { Practice } from './practice';
