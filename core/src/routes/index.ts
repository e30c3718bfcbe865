export * from './cure';
export * from './from-plan';
export * from './matrix';
export * from './net';
export * from './predict';
export * from './prefix-table';
export * from './prepared';
export * from './walk';
