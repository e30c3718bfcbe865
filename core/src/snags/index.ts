export * from './snag';
export * from './book';
export * from './mend';
export * from './mend-all';
export * from './slip';
export { connectionSnags, registerFrom0 } from './connection-rules';
export { isOneOff } from './device-rules';
