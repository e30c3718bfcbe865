export { addressesOf, copyMachine, type Copying, type CopyOrder } from './copy-machine';
export { renumber, shiftInto, type Renumbering } from './renumber';
export { editsOfRepack, editsOfSplit, type Moved, type Repacking } from './split-edits';
