export * from './act';
export * from './acts';
export * from './keys';
export * from './roles';
export * from './shape';
export * from './views';
