import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import {
  MISTAKE_KINDS,
  type MistakeKind,
  type MistakeWish,
  type NewRehearsal,
} from '@ipsonomo/core/api';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { acts, jobsQuery, useAct } from '../../../data';
import { Card, Choice, Field, Refusals, Toggle, useKept, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { MISTAKE_WORDS } from './mistake-words';

const HOW_MANY = [
  { value: '0', title: REHEARSAL_WORDS.none },
  { value: '2', title: REHEARSAL_WORDS.two, detail: REHEARSAL_WORDS.surprise },
  { value: '5', title: REHEARSAL_WORDS.five, detail: REHEARSAL_WORDS.surprise },
  { value: 'chosen', title: REHEARSAL_WORDS.chosen, detail: REHEARSAL_WORDS.chosenMore },
] as const;

interface Wished {
  readonly count: string;
  readonly which: readonly MistakeKind[];
  /** Of mistakes that are to be had again; empty: others. */
  readonly seed: string;
}

const NOTHING: Wished = { count: '0', which: [], seed: '' };
const MOST_SEED = 2 ** 31 - 1;

const wishOf = ({ count, which }: Wished): MistakeWish =>
  count === 'chosen' ? { kind: 'chosen', which } : { kind: 'surprise', count: Number(count) };

/** What is asked for; undefined where the number is none. */
function wantedOf(wished: Wished): NewRehearsal | undefined {
  const wish = wishOf(wished);
  if (wished.seed.trim() === '') return { wish };
  const seed = /^\d{1,10}$/.test(wished.seed.trim()) ? Number(wished.seed) : NaN;
  return seed <= MOST_SEED ? { wish, seed } : undefined;
}

/** Begins a rehearsal of the plan of a job. */
export function RehearseCard({ job }: { readonly job: string }) {
  const router = useRouter();
  const { data: jobs = [] } = useQuery(jobsQuery);
  const rehearse = useAct(acts.rehearse, { job });
  const [wished, setWished] = useKept(`rehearse ${job}`, NOTHING);
  const set = (part: Partial<Wished>) => setWished((all) => ({ ...all, ...part }));
  const wanted = wantedOf(wished);
  const others = jobs.filter(({ rehearses }) => rehearses?.id === job).length;
  const begin = () =>
    wanted &&
    rehearse.mutate(wanted, {
      onSuccess: ({ id }) => router.navigate(`/job/${id}/rehearsal`),
    });
  return (
    <Card>
      <Words size="strong" heading={2}>
        {REHEARSAL_WORDS.rehearseThisPlan}
      </Words>
      <Words size="second">{REHEARSAL_WORDS.rehearseWhy}</Words>
      <Choice
        label={REHEARSAL_WORDS.mistakesToFind}
        options={HOW_MANY}
        value={wished.count}
        onChange={(count) => set({ count })}
      />
      {wished.count === 'chosen' ? (
        <Which which={wished.which} onChange={(which) => set({ which })} />
      ) : null}
      {wished.count === '0' ? null : (
        <Field
          label={REHEARSAL_WORDS.theSameAgain}
          value={wished.seed}
          onChange={(seed) => set({ seed })}
          issue={
            wanted
              ? undefined
              : {
                  ...{ code: 'switches.number', where: wished.seed },
                  facts: { least: 0, most: MOST_SEED },
                }
          }
          numeric
        />
      )}
      <Button
        type="outline"
        title={REHEARSAL_WORDS.beginRehearsal}
        disabled={!wanted}
        loading={rehearse.isPending}
        onPress={begin}
      />
      <Refusals issues={issuesOf(rehearse.error)} />
      {others > 0 ? (
        <Words size="second" tone="second">
          {REHEARSAL_WORDS.otherRehearsals({ count: others })}
        </Words>
      ) : null}
    </Card>
  );
}

interface WhichProps {
  readonly which: readonly MistakeKind[];
  readonly onChange: (which: readonly MistakeKind[]) => void;
}

function Which({ which, onChange }: WhichProps) {
  const turn = (kind: MistakeKind) =>
    onChange(which.includes(kind) ? which.filter((one) => one !== kind) : [...which, kind]);
  return (
    <View style={{ gap: 6 }}>
      {MISTAKE_KINDS.map((kind) => (
        <Toggle
          key={kind}
          title={MISTAKE_WORDS[kind]}
          isOn={which.includes(kind)}
          onPress={() => turn(kind)}
        />
      ))}
    </View>
  );
}

/** Whether this job rehearses the plan of another. */
export function useIsRehearsal(job: string): boolean {
  const { data: jobs = [] } = useQuery(jobsQuery);
  return jobs.some(({ id, rehearses }) => id === job && rehearses !== null);
}
