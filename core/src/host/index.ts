export * from './state';
export * from './host';
