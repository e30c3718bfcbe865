import { format } from 'date-fns/format';
import { isSameDay } from 'date-fns/isSameDay';
import { View } from 'react-native';
import type { EvidenceView } from '@ipsonomo/core/api';
import { comesByItself } from '@ipsonomo/core/plan';
import { evidenceWords, sourceWords } from '@ipsonomo/language';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { useColours } from '../theme';
import { Words } from './Words';

/** Local 24 h time, with the date where it was another day. */
export const timeOf = (at: number): string =>
  isSameDay(at, Date.now()) ? format(at, 'HH:mm:ss') : format(at, 'd MMM HH:mm:ss');

/** Something that is still to come: to the minute. */
export const dueOf = (at: number): string =>
  isSameDay(at, Date.now()) ? format(at, 'HH:mm') : format(at, 'd MMM HH:mm');

/** Whoever decided or said it; of what the wire showed nobody is a witness but who began to listen. */
const whoWords = ({ kind, person }: EvidenceView): string =>
  person !== '' && comesByItself(kind) ? PARTS_WORDS.listeningBegunBy({ person }) : person;

/** When it came; of what a browser kept for want of a network, when it was done as well. */
function whenWords({ at, facts }: EvidenceView): string {
  const doneAt = 'doneAt' in facts ? facts.doneAt : undefined;
  return typeof doneAt !== 'number'
    ? timeOf(at)
    : PARTS_WORDS.doneAndSent({ doneAt: timeOf(doneAt), at: timeOf(at) });
}

/** What was seen, when, by whom, from where. */
export function EvidenceStamp({
  evidence,
  children,
}: {
  readonly evidence: EvidenceView;
  /** What else belongs to it. */
  readonly children?: React.ReactNode;
}) {
  const colours = useColours();
  const { source, again } = evidence;
  return (
    <View style={{ paddingVertical: 8, borderBottomWidth: 1, borderBottomColor: colours.line }}>
      <Words size="second">{evidenceWords(evidence)}</Words>
      <Words size="caption" tone="second">
        {[whenWords(evidence), whoWords(evidence), sourceWords(source)].filter(Boolean).join(' · ')}
      </Words>
      {again && (
        <Words size="caption" tone="second">
          {PARTS_WORDS.andTimesMoreTheLast({ count: again.count, until: timeOf(again.until) })}
        </Words>
      )}
      {children}
    </View>
  );
}
