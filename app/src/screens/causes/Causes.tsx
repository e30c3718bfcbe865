import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { SIGN_WORDS, type CauseAct, type LikelyCause } from '@ipsonomo/core';
import { useCheck, useSearch, useSweep, useWire } from '../../data';
import { Card, Notice, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';

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

interface Props {
  readonly job: string;
  /** The interface they are about. */
  readonly at: string;
  readonly causes: readonly LikelyCause[];
}

/** The likeliest first, each with its test and with what shows afterwards whether it was this one. */
export function Causes({ causes, ...whose }: Props) {
  if (causes.length === 0)
    return (
      <Notice tone="plain" title="No cause fits yet">
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

/** After the test: what is seen then is added to what was seen, and the list puts itself in order anew. */
function Try({
  job,
  at,
  title,
  act,
}: Omit<Props, 'causes'> & { readonly title: string; readonly act: CauseAct }) {
  const router = useRouter();
  const { field } = useWire();
  const [check, sweep, search] = [useCheck(job), useSweep(job), useSearch(job)];
  const isAsking =
    act === 'check' &&
    field?.tasks.some((task) => task.kind === 'check' && task.interfaceId === at) === true;
  const press = () => {
    switch (act) {
      case 'check':
        return check.mutate([at]);
      case 'sweep':
        return sweep.mutate();
      case 'search':
        return search.mutate();
      case 'call':
        return router.navigate(`/job/${job}/call/${at}`);
      default:
        return router.navigate(`/job/${job}/${act}`);
    }
  };
  const acts = [check, sweep, search];
  return (
    <>
      <Button
        type="outline"
        containerStyle={{ alignSelf: 'flex-start' }}
        title={ACT_WORDS[act]}
        accessibilityLabel={`${ACT_WORDS[act]}: ${title}`}
        loading={isAsking || acts.some(({ isPending }) => isPending)}
        onPress={press}
      />
      <Refusals issues={issuesOf(acts.find(({ error }) => error !== null)?.error ?? null)} />
    </>
  );
}
