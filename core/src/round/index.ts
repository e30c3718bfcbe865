export * from './call';
export * from './chains';
export * from './cost';
export * from './order';
export * from './carry';
