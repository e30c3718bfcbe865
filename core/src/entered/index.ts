export { enteredEdits, placeEntered, readEntered } from './read-entered';
export { registerAsked } from './register';
export { threeWays, type EnteredValue, type ThreeWays } from './three-ways';
