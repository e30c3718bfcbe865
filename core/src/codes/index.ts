export { formatCode, readCode, type CodeReading } from './read-code';
export { CODE_SYSTEMS, CODES, type CodeSystem, type CodeTopic } from './table';
