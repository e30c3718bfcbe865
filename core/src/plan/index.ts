export * from './model';
export * from './kinds';
export * from './allocate';
export * from './stages';
export * from './offers';
