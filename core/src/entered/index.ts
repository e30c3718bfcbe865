export * from './three-ways';
export * from './read-entered';
export * from './register';
