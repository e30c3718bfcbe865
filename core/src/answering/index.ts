export * from './entry';
export * from './decide';
export * from './request';
export * from './heard';
