// The words that leave with files.
import * as files from './en/hand-over-files';
import { said, words } from './said';

export { JOINER_WORDS, laneTitle } from './en/screens/picture';

const heads = (all: readonly string[]): readonly string[] => said(() => all)();

export const FORMAT_TITLES = words(files.FORMAT_TITLES);
export const READER_TITLES = words(files.READER_TITLES);
export const FORMAT_ABOUT = words(files.FORMAT_ABOUT);
export const FORMAT_STANDARD = words(files.FORMAT_STANDARD);
export const FORMAT_CANNOT = words(files.FORMAT_CANNOT);
export const FILE_WORDS = words(files.FILE_WORDS);
export const LIST_HEADS = words(files.LIST_HEADS);
export const STOCK_TITLES = words<string>(files.STOCK_TITLES);
export const NEED_WORDS = words(files.NEED_WORDS);
export const NEED_HEADS = heads(files.NEED_HEADS);
export const CARD_WORDS = words(files.CARD_WORDS);
export const COUNTING_WORDS = words(files.COUNTING_WORDS);
export const PLACE_WORDS = words(files.PLACE_WORDS);
export const PROOF_WORDS = words(files.PROOF_WORDS);
export const CONNECTION_HEADS = heads(files.CONNECTION_HEADS);
export const CORRECTION_HEADS = heads(files.CORRECTION_HEADS);
export const PLACE_HEADS = heads(files.PLACE_HEADS);
export const SHEET_HEADS = heads(files.SHEET_HEADS);
export const NAME_HEADS = heads(files.NAME_HEADS);
export const VERIFY_WORDS = words(files.VERIFY_WORDS);
export const proofFaultWords = said(files.proofFaultWords);
export const leftOutWords = said(files.leftOutWords);
export const stateLines = said(files.stateLines);
