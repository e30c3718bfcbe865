export * from './entry';
export * from './decide';
export * from './heard';
