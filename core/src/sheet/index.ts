export * from './columns';
export * from './clipboard';
export * from './series';
export * from './cells';
export * from './rows';
