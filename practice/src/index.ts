export * from './site';
export * from './tern-cove';
export type { Lamp } from './device';
