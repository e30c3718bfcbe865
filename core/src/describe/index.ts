export {
  MOST_UNREAD,
  type Description,
  type NoDescription,
  type Unread,
  type UnreadWhy,
} from './description';
export { readEds } from './eds';
export { readGsdml } from './gsdml';
export type { XmlElement } from './xml';
