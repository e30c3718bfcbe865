// What other features use of this one; its screens are for the routes alone.
export { HeldHere } from './HeldHere';
export { HeldAtDoor } from './HeldAtDoor';
export { WaitingBar } from './WaitingBar';
