import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { FieldTaskView } from '@ipsonomo/core/api';
import { SIGN_WORDS } from '@ipsonomo/language';
import type { CauseAct, LikelyCause } from '@ipsonomo/core/causes';
import { acts, useAct, useField, useWire } from '../../../data';
import { Card, Notice, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';

const MOST = 6;

const ACT_WORDS: Readonly<Record<CauseAct, string>> = {
  check: 'Done: ask it again',
  sweep: 'Done: look who is there',
  search: 'Done: search over layer 2',
  call: 'Go to its call',
  vigil: 'Watch it again',
  drill: 'Switch it off and on: cold start',
  routes: 'See its routes',
  codes: 'What does the code mean?',
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
      <Notice tone="plain" title="Looking …">
        What is seen now is told here.
      </Notice>
    ) : (
      <Notice tone="plain" title="No cause fits">
        Causes are told from what was seen. A run, a sweep or a look at the device gives more.
      </Notice>
    );
  return (
    <View style={{ gap: 10 }}>
      <Words size="strong" heading={2}>
        Likely causes, the likeliest first
      </Words>
      {causes.slice(0, MOST).map(({ rule, unexplained }, place) => (
        <Card key={rule.id} strong={place === 0}>
          <Words size="strong">
            {place + 1}. {rule.title}
          </Words>
          <Words size="second">{rule.test}</Words>
          <Words size="caption" tone="second">
            {[
              `about ${rule.minutes} min`,
              unexplained.length > 0
                ? `does not explain: ${unexplained.map((sign) => SIGN_WORDS[sign]).join('; ')}`
                : 'explains all that was seen',
            ].join(' · ')}
          </Words>
          <Try {...whose} title={rule.title} act={rule.act} />
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
