export * from './entry';
export * from './decide';
export * from './recognise';
export * from './request';
export * from './heard';
