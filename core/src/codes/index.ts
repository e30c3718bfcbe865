export { besideCode } from './beside';
export { formatCode, readCode, type CodeReading } from './read-code';
export { CODE_SYSTEMS, CODES, type CodeSystem } from './table';
