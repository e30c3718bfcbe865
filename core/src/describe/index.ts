export * from './eds';
export type { Unread } from './eds-text';
