export * from './site';
export * from './tern-cove';
