import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { FieldTaskView } from '@ipsonomo/core/api';
import { causeWords, SIGN_WORDS } from '@ipsonomo/language/causes';
import type { CauseAct, LikelyCause } from '@ipsonomo/core/causes';
import { CAUSES_WORDS } from '@ipsonomo/language/screens/causes';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { acts, useAct, useField, useWire } from '../../../data';
import { Card, Notice, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';

const MOST = 6;

const ACT_WORDS: Readonly<Record<CauseAct, string>> = {
  check: CAUSES_WORDS.doneAskItAgain,
  sweep: CAUSES_WORDS.doneLookWhoIsThere,
  search: CAUSES_WORDS.doneSearchOverLayer2,
  call: COMMON_WORDS.goToItsCall,
  vigil: CAUSES_WORDS.watchItAgain,
  drill: CAUSES_WORDS.switchItOffAndOnCold,
  routes: CAUSES_WORDS.seeItsRoutes,
  codes: CAUSES_WORDS.whatDoesTheCodeMean,
};

const ASKING: readonly FieldTaskView['kind'][] = ['check', 'sweep', 'search'];

interface Props {
  readonly job: string;
  /** The interface they are about. */
  readonly at: string;
  readonly causes: readonly LikelyCause[];
  /** The test is done, and what is seen from then on counts. */
  readonly onAsked: (at: number) => void;
}

/** The likeliest first, each with its test and with what shows afterwards whether it was this one. */
export function Causes({ causes, ...whose }: Props) {
  const field = useField();
  const isAsking = field?.tasks.some(({ kind }) => ASKING.includes(kind)) ?? false;
  if (causes.length === 0)
    return isAsking ? (
      <Notice tone="plain" title={CAUSES_WORDS.looking}>
        {CAUSES_WORDS.whatIsSeenNowIsTold}
      </Notice>
    ) : (
      <Notice tone="plain" title={CAUSES_WORDS.noCauseFits}>
        {CAUSES_WORDS.causesAreToldFromWhatWas}
      </Notice>
    );
  return (
    <View style={{ gap: 10 }}>
      <Words size="strong" heading={2}>
        {CAUSES_WORDS.likelyCausesTheLikeliestFirst}
      </Words>
      {causes.slice(0, MOST).map(({ rule, unexplained }, place) => (
        <Card key={rule.id} strong={place === 0}>
          <Words size="strong">
            {place + 1}. {causeWords(rule.id).title}
          </Words>
          <Words size="second">{causeWords(rule.id).test}</Words>
          <Words size="caption" tone="second">
            {[
              CAUSES_WORDS.aboutMin({ minutes: rule.minutes }),
              unexplained.length > 0
                ? CAUSES_WORDS.doesNotExplain({
                    value: unexplained.map((sign) => SIGN_WORDS[sign]).join('; '),
                  })
                : CAUSES_WORDS.explainsAllThatWasSeen,
            ].join(' · ')}
          </Words>
          <Try {...whose} title={causeWords(rule.id).title} act={rule.act} />
        </Card>
      ))}
    </View>
  );
}

/** After the test: only what is seen from the press on counts, and the list puts itself in order anew. */
function Try({
  job,
  at,
  title,
  act,
  onAsked,
}: Omit<Props, 'causes'> & { readonly title: string; readonly act: CauseAct }) {
  const router = useRouter();
  const [check, sweep, search] = [
    useAct(acts.check, { job }),
    useAct(acts.sweep, { job }),
    useAct(acts.searchStations, { job }),
  ];
  const { now } = useWire();
  const press = () => {
    // What was seen before this moment is no sign any more; a search ends long after it.
    // What is seen meanwhile may take this card away; whoever asked is told all the same, and a refusal by the act itself.
    const then = (asked: Promise<unknown>) =>
      void asked.then(
        () => onAsked(now),
        () => undefined,
      );
    switch (act) {
      case 'check':
        return then(check.mutateAsync({ interfaceIds: [at] }));
      case 'sweep':
        return then(sweep.mutateAsync());
      case 'search':
        return then(search.mutateAsync());
      case 'call':
        return router.navigate(`/job/${job}/call/${at}`);
      default:
        return router.navigate(`/job/${job}/${act}`);
    }
  };
  const asking = [check, sweep, search];
  return (
    <>
      <Button
        type="outline"
        containerStyle={{ alignSelf: 'flex-start' }}
        title={ACT_WORDS[act]}
        accessibilityLabel={`${ACT_WORDS[act]}: ${title}`}
        loading={asking.some(({ isPending }) => isPending)}
        onPress={press}
      />
      <Refusals issues={issuesOf(asking.find(({ error }) => error !== null)?.error ?? null)} />
    </>
  );
}
