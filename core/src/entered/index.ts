export * from './three-ways';
export * from './read-entered';
