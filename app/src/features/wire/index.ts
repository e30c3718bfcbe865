// What other features use of this one; its screens are for the routes alone.
export { StrangerLine, SweepButton } from './WhoIsThere';
export { whoIsThere } from './who-is-there';
