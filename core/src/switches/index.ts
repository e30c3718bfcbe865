export * from './face';
export * from './read';
export * from './set';
