import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { View } from 'react-native';
import type { EditsView } from '@ipsonomo/core/api';
import { docBefore, type Edit } from '@ipsonomo/core/plan';
import { differencesOf, type Difference } from '@ipsonomo/language';
import { REVISIONS_WORDS } from '@ipsonomo/language/screens/revisions';
import { editsQuery, type Job } from '../../../data';
import { Card, Notice, Words } from '../../../parts';
import { useColours, useWide } from '../../../theme';

interface Props {
  readonly id: string;
  readonly job: Job;
  /** One revision, against the plan as it is; or two. */
  readonly chosen: readonly number[];
}

const MOST = 300;

/** What two states of the plan differ in. */
export function Compare({ id, job, chosen }: Props) {
  const [from = 0, to] = [...chosen].sort((a, b) => a - b);
  const differences = useDifferences(id, job, from, to);
  const title = titleOf(from, to);
  if (!differences) return <Notice tone="plain">{REVISIONS_WORDS.beingRead({ title })}</Notice>;
  return (
    <Card>
      <Words size="strong" heading={2}>
        {title}:{' '}
        {differences.length === 0
          ? REVISIONS_WORDS.nothingDiffers
          : REVISIONS_WORDS.difference({ differences: differences.length })}
      </Words>
      {differences.slice(0, MOST).map((one) => (
        <DifferenceLine key={one.key} one={one} />
      ))}
      {differences.length > MOST ? (
        <Words size="second" tone="second">
          {REVISIONS_WORDS.andMore({ differences: differences.length - MOST })}
        </Words>
      ) : null}
    </Card>
  );
}

/** Undefined while the edits between are read. */
function useDifferences(id: string, job: Job, from: number, to: number | undefined) {
  const now = job.now.revision;
  const since = useQuery(editsQuery(id, from)).data;
  const later = useQuery({ ...editsQuery(id, to ?? now), enabled: to !== undefined }).data;
  return useMemo(() => {
    // The edits end where the plan of this page stands, or it is read again.
    if (since?.revision !== now || (to !== undefined && later?.revision !== now)) return undefined;
    const before = docBefore(job.doc, allOf(since));
    const after = to === undefined ? job.doc : docBefore(job.doc, later ? allOf(later) : []);
    return before && after ? differencesOf(before, after) : undefined;
  }, [since, later, job.doc, now, to]);
}

const titleOf = (from: number, to: number | undefined): string =>
  to === undefined
    ? REVISIONS_WORDS.sinceRevision({ from })
    : REVISIONS_WORDS.fromRevisionTo({ from, to });

const allOf = ({ revisions }: EditsView): readonly Edit[] => revisions.flatMap((one) => one.edits);

function DifferenceLine({ one }: { readonly one: Difference }) {
  const colours = useColours();
  const wide = useWide();
  return (
    <View
      style={{
        flexDirection: wide ? 'row' : 'column',
        gap: wide ? 16 : 2,
        borderTopWidth: 1,
        borderTopColor: colours.line,
        paddingTop: 6,
      }}
    >
      <View style={{ flex: wide ? 1 : undefined }}>
        <Words size="second">{one.thing}</Words>
      </View>
      <View style={{ flex: wide ? 2 : undefined }}>
        <Words size="second" tone="second">
          {one.field === '' ? one.after : `${one.field}: ${one.before} → ${one.after}`}
        </Words>
      </View>
    </View>
  );
}
