export { enteredEdits, placeEntered, readEntered } from './read-entered';
export { registerAsked } from './register';
export {
  correctionsOf,
  deviceTakes,
  otherSides,
  sideEdits,
  type Correction,
  type Side,
} from './sides';
export { threeWays, type EnteredValue, type ThreeWays } from './three-ways';
