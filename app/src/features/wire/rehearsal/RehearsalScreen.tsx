import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { FoundMistake, Mistake, RehearsalView } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { acts, reading, useAct, usePlan } from '../../../data';
import { Card, Page, Refusals, Words } from '../../../parts';
import { interfaceOptions, issuesOf } from '../../words';
import { ClaimCard } from './ClaimCard';
import { MISTAKE_WORDS, UNREHEARSED_WORDS } from './mistake-words';

/** How a rehearsal stands: what was found in it, and at its end what was not. */
export function RehearsalScreen({ job }: { readonly job: string }) {
  const router = useRouter();
  const { data: view, error } = useQuery(reading(acts.readRehearsal, { job }));
  const { plan } = usePlan(job);
  const toFind = view ? view.mistakes - view.found.length : 0;
  return (
    <Page
      action={
        <Button
          size="lg"
          title={REHEARSAL_WORDS.toTheCabinets}
          onPress={() => router.navigate(`/job/${job}/cabinet`)}
        />
      }
    >
      <Words size="title" heading={1}>
        {view?.of ? REHEARSAL_WORDS.rehearsalOf({ name: view.of.name }) : REHEARSAL_WORDS.rehearsal}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {view ? <Begun view={view} /> : null}
      {view && plan && toFind > 0 && view.endedAt === null ? (
        <ClaimCard job={job} plan={plan} />
      ) : null}
      {view && plan ? <Found view={view} plan={plan} /> : null}
      {view && toFind > 0 && view.endedAt === null ? <EndSearch job={job} /> : null}
      {view && plan ? <NotRehearsed view={view} plan={plan} /> : null}
    </Page>
  );
}

function Begun({ view }: { readonly view: RehearsalView }) {
  const { of, mistakes, found, endedAt, seed } = view;
  const begun = format(view.begunAt, 'd MMM HH:mm');
  return (
    <Card strong>
      <Words size="second">
        {of
          ? REHEARSAL_WORDS.rehearsalOfRevision({ name: of.name, revision: of.revision, begun })
          : REHEARSAL_WORDS.ofAJobThatIsGone({ begun })}
      </Words>
      <Words size="second">{REHEARSAL_WORDS.nothingCounts}</Words>
      <Words size="strong" tone={found.length === mistakes ? 'moss' : 'ochre'}>
        {countWords(mistakes, found.length)}
      </Words>
      {mistakes > 0 && endedAt !== null ? (
        <Words size="second" tone="second">
          {REHEARSAL_WORDS.seed({ seed })}
        </Words>
      ) : null}
    </Card>
  );
}

function countWords(mistakes: number, found: number): string {
  if (mistakes === 0) return REHEARSAL_WORDS.noMistakes;
  if (mistakes === found) return REHEARSAL_WORDS.allFound({ mistakes });
  return REHEARSAL_WORDS.mistakesAreInIt({ mistakes, found });
}

interface Shown {
  readonly view: RehearsalView;
  readonly plan: Plan;
}

function Found({ view, plan }: Shown) {
  const titleOf = titlesOf(plan);
  const { found, missed, wrongClaims, begunAt } = view;
  return (
    <View style={{ gap: 16 }}>
      {found.length > 0 ? (
        <Mistakes
          title={REHEARSAL_WORDS.found}
          lines={found.map((one) => [mistakeWords(one, titleOf), foundWords(one, begunAt)])}
        />
      ) : null}
      {missed.length > 0 ? (
        <Mistakes
          title={REHEARSAL_WORDS.notFound}
          lines={missed.map((one) => [mistakeWords(one, titleOf), ''])}
        />
      ) : null}
      {wrongClaims > 0 ? (
        <Words size="second" tone="second">
          {REHEARSAL_WORDS.wrongClaims({ count: wrongClaims })}
        </Words>
      ) : null}
    </View>
  );
}

interface Lines {
  readonly title: string;
  readonly lines: readonly (readonly [what: string, more: string])[];
}

function Mistakes({ title, lines }: Lines) {
  return (
    <Card>
      <Words size="strong" heading={2}>
        {title}
      </Words>
      {lines.map(([what, more]) => (
        <View key={what}>
          <Words>{what}</Words>
          {more === '' ? null : (
            <Words size="second" tone="second">
              {more}
            </Words>
          )}
        </View>
      ))}
    </Card>
  );
}

/** What was not found is told only once, and asked about before. */
function EndSearch({ job }: { readonly job: string }) {
  const end = useAct(acts.endRehearsal, { job });
  const [isAsked, setAsked] = useState(false);
  return (
    <View style={{ gap: 8 }}>
      {isAsked ? (
        <>
          <Button
            title={REHEARSAL_WORDS.yesEnd}
            loading={end.isPending}
            onPress={() => end.mutate()}
          />
          <Button type="outline" title={REHEARSAL_WORDS.searchOn} onPress={() => setAsked(false)} />
        </>
      ) : (
        <Button
          type="outline"
          title={REHEARSAL_WORDS.endTheSearch}
          onPress={() => setAsked(true)}
        />
      )}
      <Refusals issues={issuesOf(end.error)} />
    </View>
  );
}

function NotRehearsed({ view, plan }: Shown) {
  const titleOf = titlesOf(plan);
  if (view.unrehearsed.length === 0) return null;
  return (
    <Card>
      <Words size="strong" heading={2}>
        {REHEARSAL_WORDS.notRehearsed}
      </Words>
      {view.unrehearsed.map(({ interfaceId, why }) => (
        <Words key={interfaceId} size="second">
          {UNREHEARSED_WORDS[why]({ title: titleOf(interfaceId) })}
        </Words>
      ))}
    </Card>
  );
}

function titlesOf(plan: Plan): (interfaceId: string) => string {
  const titles = new Map(interfaceOptions(plan).map(({ value, title }) => [value, title]));
  return (interfaceId) => titles.get(interfaceId) ?? interfaceId;
}

const mistakeWords = (
  { kind, interfaceId }: Mistake,
  titleOf: (interfaceId: string) => string,
): string =>
  interfaceId === ''
    ? MISTAKE_WORDS[kind]
    : REHEARSAL_WORDS.foundLine({ mistake: MISTAKE_WORDS[kind], title: titleOf(interfaceId) });

function foundWords({ person, at }: FoundMistake, begunAt: number): string {
  const count = Math.max(1, Math.round((at - begunAt) / 60_000));
  return REHEARSAL_WORDS.foundBy({ person, after: REHEARSAL_WORDS.minutes({ count }) });
}
