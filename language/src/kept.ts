// The words that the server writes down.
export { FALL_WORDS, NAME_WORDS, REVISION_WORDS } from './en/kept';
