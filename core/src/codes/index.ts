export * from './beside';
export * from './read-code';
export * from './table';
