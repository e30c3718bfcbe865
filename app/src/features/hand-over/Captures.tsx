import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { sourceWords } from '@ipsonomo/language';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import { acts, download, pathOf, reading } from '../../data';
import { Row, Words } from '../../parts';

interface Props {
  readonly job: string;
  /** Kinds of the plan have papers. */
  readonly hasPapers: boolean;
}

/** What leaves beside the formats: the picture, the ticks, the plan without its papers, what was said on the wire. */
export function Captures({ job, hasPapers }: Props) {
  const router = useRouter();
  const { data: runs = [] } = useQuery(reading(acts.listRuns, { job }));
  return (
    <View>
      <Row
        label={HAND_OVER_WORDS.thePictureIsItsOwnPage}
        onPress={() => router.navigate(`/job/${job}/picture`)}
      >
        <Words size="strong">{HAND_OVER_WORDS.thePictureIsItsOwnPage}</Words>
      </Row>
      <Row
        label={HAND_OVER_WORDS.tickWhereAddressesAreWritten}
        onPress={() => router.navigate(`/job/${job}/written`)}
      >
        <Words size="strong">{HAND_OVER_WORDS.tickWhereAddressesAreWritten}</Words>
      </Row>
      {hasPapers ? (
        <Row
          label={HAND_OVER_WORDS.thePlanWithoutItsPapers}
          onPress={() => download(pathOf(acts.fetchPlanFile, { job }, { papers: 'named' }))}
        >
          <Words size="strong">{HAND_OVER_WORDS.thePlanWithoutItsPapers}</Words>
        </Row>
      ) : null}
      <Words size="strong" heading={2}>
        {HAND_OVER_WORDS.whatWasSaidOnTheWire}
      </Words>
      {runs.length === 0 ? (
        <Words tone="second">{HAND_OVER_WORDS.capturesOfWhatWasSaidOn}</Words>
      ) : null}
      {runs.map((run) => (
        <Row
          key={run.id}
          label={HAND_OVER_WORDS.captureOf({ startedAt: format(run.startedAt, 'd MMM HH:mm') })}
          onPress={() => download(pathOf(acts.fetchCapture, { job, run: run.id }))}
        >
          <Words size="strong">
            {HAND_OVER_WORDS.capture({ startedAt: format(run.startedAt, 'd MMM HH:mm') })}
          </Words>
          <Words size="second" tone="second">
            {HAND_OVER_WORDS.pcap({
              source: sourceWords(run.source),
              person: run.person,
              endedAt:
                run.endedAt === null
                  ? HAND_OVER_WORDS.stillListening
                  : HAND_OVER_WORDS.until({ endedAt: format(run.endedAt, 'HH:mm') }),
            })}
          </Words>
        </Row>
      ))}
    </View>
  );
}
