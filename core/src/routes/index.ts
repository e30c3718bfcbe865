export * from './net';
export * from './predict';
export * from './prefix-table';
export * from './prepared';
export * from './walk';
