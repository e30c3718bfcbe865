// What other features use of this one; its screens are for the routes alone.
export { helpOf, pageOf } from './help-of';
export { StageList } from './HelpScreen';
