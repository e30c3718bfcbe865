// What people read: the one language there is. Everything here is made of values, and never stored. The words of
// screens, causes and codes have doors of their own, so that a page is sent only its own.
import { WAY_WORDS as CORE_WAYS } from '@ipsonomo/core/plan';
import * as descriptions from './en/descriptions';
import * as differences from './en/differences';
import { ENTERED_WORDS as entered } from './en/entered';
import * as evidence from './en/evidence';
import * as notices from './en/notices';
import * as proofs from './en/proofs';
import * as refusals from './en/refusals';
import * as routes from './en/routes';
import * as snags from './en/snags';
import * as switches from './en/switches';
import * as vigils from './en/vigils';
import { said, words } from './said';

export { frameView, messageView, optionView } from './en/decoded';
export { differencesOf, thingWords, valueWords, type Difference } from './en/differences';
export { nearOwnerTitle, ownerTitle, strangerPlace } from './en/proofs';
export { issueCodes } from './en/refusals';
export { cureEdits, rackPathView, type RackPathView } from './en/routes';
export { turnLineOf, type TurnLine, type TurnRow } from './en/turn-line';

export const fieldWords = said(differences.fieldWords);
export const ENTERED_WORDS = words(entered);
export const evidenceWords = said(evidence.evidenceWords);
export const nameSlipWords = said(evidence.nameSlipWords);
export const returnWords = said(evidence.returnWords);
export const ROLE_WORDS = words(evidence.ROLE_WORDS);
export const sourceWords = said(evidence.sourceWords);
export const STAGE_WORDS = words(evidence.STAGE_WORDS);
export const TWIN_WORDS = words(evidence.TWIN_WORDS);
export const noticeWords = said(notices.noticeWords);
export const DIFFERENCE_HEADS = words(proofs.DIFFERENCE_HEADS);
export const DIFFERENCE_TITLES = words(proofs.DIFFERENCE_TITLES);
export const differenceWords = said(proofs.differenceWords);
export const FOUND_WORDS = words(proofs.FOUND_WORDS);
export const foundWords = said(proofs.foundWords);
export const proofEndWords = said(proofs.proofEndWords);
export const SETTLEMENT_WORDS = words(proofs.SETTLEMENT_WORDS);
export const strangerWords = said(proofs.strangerWords);
export const sentenceOf = said(refusals.sentenceOf);
export const cureWords = said(routes.cureWords);
export const verdictWords = said(routes.verdictWords);
/** A way by which a device gets its address; lists have the words of core, whatever language is read. */
export const WAY_WORDS = words(CORE_WAYS);
export const SEVERITY_WORDS = words(snags.SEVERITY_WORDS);
/** The heading of a column on a page; a file has the column's own title. */
export const columnWords = said(({ title }: { readonly title: string }) => title);
export const walkWords = said(routes.walkWords);
export const mendWords = said(snags.mendWords);
export const snagSentence = said(snags.snagSentence);
export const switchWords = said(switches.switchWords);
export const unreadWords = said(descriptions.unreadWords);
export const vigilWords = said(vigils.vigilWords);
export { FOUND_MARKS, IMPORT_TOLD } from './en/found';
