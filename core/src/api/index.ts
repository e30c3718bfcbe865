export * from './cabinet';
export * from './decoded';
export * from './views';
export * from './heard-news';
export * from './plan-view';
export * from './sentences';
export * from './snag-sentences';
export * from './words';
