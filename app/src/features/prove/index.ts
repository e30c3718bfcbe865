// What other features use of this one; its screens are for the routes alone.
export { Claimants } from './Claimants';
export { Temporary } from './Temporary';
export { findingsOf } from './findings';
