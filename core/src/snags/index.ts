export * from './snag';
export * from './book';
export * from './mend';
export * from './slip';
export { moduleBytes, registerFrom0 } from './connection-rules';
export { isOneOff } from './device-rules';
