import type { MistakeKind, Unrehearsed } from '@ipsonomo/core/api';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';

export const MISTAKE_WORDS: Readonly<Record<MistakeKind, string>> = {
  'wrong-label': REHEARSAL_WORDS.wrongLabel,
  'kept-address': REHEARSAL_WORDS.keptAddress,
  'cable-out': REHEARSAL_WORDS.cableOut,
  'wrong-socket': REHEARSAL_WORDS.wrongSocket,
  'address-taken': REHEARSAL_WORDS.addressTaken,
  'in-use': REHEARSAL_WORDS.inUse,
  'other-revision': REHEARSAL_WORDS.otherRevision,
  'drops-out': REHEARSAL_WORDS.dropsOut,
  'lending-router': REHEARSAL_WORDS.lendingRouter,
  'router-leg-out': REHEARSAL_WORDS.routerLegOut,
};

export const UNREHEARSED_WORDS: Readonly<
  Record<Unrehearsed['why'], (facts: { readonly title: string }) => string>
> = {
  'no-kind': REHEARSAL_WORDS.noKind,
  'no-subnet': REHEARSAL_WORDS.noSubnet,
  'no-relay': REHEARSAL_WORDS.noRelay,
  'no-factory': REHEARSAL_WORDS.noFactory,
};
