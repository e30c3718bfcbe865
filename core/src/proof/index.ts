export * from './checks';
export * from './compare-found';
export * from './facts';
export * from './outcome';
export * from './run-changes';
export * from './scope';
export * from './settle';
export * from './state';
