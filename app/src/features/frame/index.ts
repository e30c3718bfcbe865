// What other features use of this one; its screens are for the routes alone.
export { elsewhereWords, sourceName, stateWords, wireWords } from './wire-words';
