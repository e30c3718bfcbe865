export { findIn, FindBook, type Findable, type Found, type FoundKind } from './find';
export { NarrowBook } from './narrow';
