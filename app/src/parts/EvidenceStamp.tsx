import { format } from 'date-fns/format';
import { isSameDay } from 'date-fns/isSameDay';
import { View } from 'react-native';
import type { EvidenceView } from '@ipsonomo/core/api';
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

/** What was seen, when, by whom, from where. */
export function EvidenceStamp({ evidence }: { readonly evidence: EvidenceView }) {
  const colours = useColours();
  const { at, person, source, again } = evidence;
  return (
    <View style={{ paddingVertical: 8, borderBottomWidth: 1, borderBottomColor: colours.line }}>
      <Words size="second">{evidenceWords(evidence)}</Words>
      <Words size="caption" tone="second">
        {[timeOf(at), person, sourceWords(source)].filter(Boolean).join(' · ')}
      </Words>
      {again && (
        <Words size="caption" tone="second">
          {PARTS_WORDS.andTimesMoreTheLast({ count: again.count, until: timeOf(again.until) })}
        </Words>
      )}
    </View>
  );
}
