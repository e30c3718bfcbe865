export * from './description';
export * from './eds';
export * from './gsdml';
export type { XmlElement } from './xml';
