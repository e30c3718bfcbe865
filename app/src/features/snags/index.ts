// What other features use of this one; its screens are for the routes alone.
export { deviceAt, SnagList } from './SnagList';
export { ofThings } from './causes';
export { SIGNS } from './signs';
export { snagWords } from './snag-words';
