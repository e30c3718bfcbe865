export { pause, timerClock, type CallOff, type Clock } from './clock';
export { Conductor, follow, type FollowerPort } from './conducted';
export { SteppedClock } from './stepped';
export { threadClock, type Conducted, type Platform } from './thread-clock';
