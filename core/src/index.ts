export * from './net';
export * from './names';
export * from './plan';
export * from './wire';
export * from './host';
export * from './answering';
export * from './api';
