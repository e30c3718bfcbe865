import { View } from 'react-native';
import type { RoundTimes } from '@ipsonomo/core/api';
import type { Saving } from '@ipsonomo/core/round';
import { HOW_LONG_WORDS } from '@ipsonomo/language/screens/how-long';
import { useRoundTimes } from '../../../data';
import { Card, Choice, Page, Refusals, useKept, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { useRound } from '../assign/use-round';
import { durationWords } from './duration-words';

const PEOPLE = (['1', '2', '3', '4'] as const).map((value) => ({
  value,
  title: HOW_LONG_WORDS.people({ count: Number(value) }),
}));

const SAVING_WORDS: Readonly<Record<Saving, (facts: { readonly saved: string }) => string>> = {
  bound: HOW_LONG_WORDS.boundAtTheDesk,
  person: HOW_LONG_WORDS.onePersonMore,
  laptop: HOW_LONG_WORDS.oneLaptopMore,
  order: HOW_LONG_WORDS.theBestOrder,
};

/** The round played without anybody: how long it takes, where, what holds it up, and what would be quicker. */
export function HowLongScreen({ job }: { readonly job: string }) {
  const [people, setPeople] = useKept(`people ${job}`, '1');
  const { isOwn, order, best } = useRound(job);
  const wish = { people: Number(people), ...(isOwn ? { order } : {}) };
  const { data, error } = useRoundTimes(job, wish, best?.mark);
  return (
    <Page maxWidth={900}>
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {data
            ? HOW_LONG_WORDS.itTakes({ time: durationWords(data.seconds) })
            : HOW_LONG_WORDS.howLong}
        </Words>
        <Words tone="second">{HOW_LONG_WORDS.playedWithoutAnybody}</Words>
      </View>
      <Choice
        label={HOW_LONG_WORDS.howManyPeople}
        options={PEOPLE}
        value={people}
        onChange={setPeople}
      />
      <Refusals issues={issuesOf(error)} />
      {data ? <Told times={data} /> : null}
    </Page>
  );
}

function Told({ times }: { readonly times: RoundTimes }) {
  const { waited, savings, cabinets, persons, calls } = times;
  const holds = [
    [HOW_LONG_WORDS.devicesStarting, waited.device],
    [HOW_LONG_WORDS.theLaptop, waited.laptop],
    [HOW_LONG_WORDS.oneFactoryAddress, waited.factory],
  ] as const;
  if (calls === 0) return <Words>{HOW_LONG_WORDS.nothingLeft}</Words>;
  return (
    <>
      <Lines
        title={HOW_LONG_WORDS.whatHoldsUp}
        lines={holds.flatMap(([what, seconds]) =>
          seconds > 0 ? [[what, durationWords(seconds)] as const] : [],
        )}
      />
      <Lines
        title={HOW_LONG_WORDS.whatWouldBeQuicker}
        lines={savings.map(([saving, seconds]) => [
          SAVING_WORDS[saving]({ saved: durationWords(seconds) }),
          '',
        ])}
      />
      <Lines
        title={HOW_LONG_WORDS.byCabinet}
        lines={cabinets.map(({ area, cabinet, calls: count, seconds }) => [
          HOW_LONG_WORDS.cabinetLine({
            ...{ count, cabinet: [area, cabinet].filter((one) => one !== '').join(', ') || '–' },
          }),
          durationWords(seconds),
        ])}
      />
      {persons.length > 1 ? (
        <Lines
          title={HOW_LONG_WORDS.byPerson}
          lines={persons.map(({ worked, walked, doneAt }, at) => [
            HOW_LONG_WORDS.personLine({
              ...{ number: at + 1, worked: durationWords(worked), walked: durationWords(walked) },
            }),
            HOW_LONG_WORDS.doneAfter({ time: durationWords(doneAt) }),
          ])}
        />
      ) : null}
    </>
  );
}

interface LinesProps {
  readonly title: string;
  readonly lines: readonly (readonly [what: string, howLong: string])[];
}

function Lines({ title, lines }: LinesProps) {
  if (lines.length === 0) return null;
  return (
    <Card>
      <Words size="strong" heading={2}>
        {title}
      </Words>
      {lines.map(([what, howLong], at) => (
        <View key={at} style={{ flexDirection: 'row', gap: 12 }}>
          <View style={{ flex: 1 }}>
            <Words size="second">{what}</Words>
          </View>
          <Words size="second" tone="second">
            {howLong}
          </Words>
        </View>
      ))}
    </Card>
  );
}
