// Threads of Node: opened from a bundle or from source, started again where one falls, all by one clock.
export { bundles, openWorker, type Program } from './open-worker';
export { Thread, type ThreadEvents } from './thread';
export { hastenedTime, PLATFORM, REAL_TIME, type Time } from './time';
export { Turns } from './turns';
