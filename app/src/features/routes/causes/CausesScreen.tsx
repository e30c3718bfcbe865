import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { knownOf, type EvidenceView } from '@ipsonomo/core/api';
import { evidenceWords } from '@ipsonomo/language';
import { SEEN_AT_DEVICE, SIGN_WORDS } from '@ipsonomo/language/causes';
import {
  knownSince,
  likelyCauses,
  signsOf,
  SIGNS,
  type Countersign,
  type Sign,
} from '@ipsonomo/core/causes';
import { CHECK_KINDS, interfacesOf, type PlannedInterface } from '@ipsonomo/core/plan';
import { CAUSES_WORDS } from '@ipsonomo/language/screens/causes';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import {
  acts,
  foundRoutesQuery,
  neededRoutesQuery,
  reading,
  useField,
  useHeard,
  useJob,
  usePresent,
  useStations,
  useTraffic,
} from '../../../data';
import { Page, Refusals, timeOf, Toggle, Words } from '../../../parts';
import { Claimants } from '../../prove';
import { issuesOf } from '../../words';
import { settingsFound } from '../settings-found';
import { Causes } from './Causes';

type Said = ReadonlySet<Sign | Countersign>;

const isCheck = (kind: string): boolean => CHECK_KINDS.some((one) => one === kind);

/** Whoever else was seen at its address since it last had it, as a list of MACs; empty where nobody was. */
function claimantsIn(evidence: readonly EvidenceView[]): string {
  const newest = evidence.find(
    ({ kind }) => kind === 'address-taken' || kind === 'has-address' || isCheck(kind),
  );
  if (newest?.kind === 'address-taken') return newest.facts.by;
  if (newest?.kind !== 'contradicted' || newest.facts.what !== 'mac') return '';
  return typeof newest.facts.found === 'string' ? newest.facts.found : '';
}

/** Why a device may not be as planned: what was seen, what fits it best, and the cheapest test. */
export function CausesScreen({ job: id, at }: { readonly job: string; readonly at: string }) {
  const { job, error } = useJob(id);
  const router = useRouter();
  const [said, setSaid] = useState<Said>(new Set());
  const [since, setSince] = useState(0);
  const planned = job && interfacesOf(job.plan).find((one) => one.at.id === at);
  const signs = useSigns(id, planned, said, since);
  const evidence = useQuery(reading(acts.readEvidence, { job: id, interface: at })).data ?? [];
  const others = claimantsIn(evidence);
  const check = evidence.find((one) => isCheck(one.kind));
  const differs = check?.kind === 'contradicted' ? check : undefined;
  const seen = SIGNS.filter((sign) => signs?.has(sign));
  const causes = signs ? likelyCauses(signs) : [];
  const toggle = (sign: Sign | Countersign) => {
    const next = new Set(said);
    if (!next.delete(sign)) next.add(sign);
    setSaid(next);
  };
  return (
    <Page
      action={
        <Button
          size="lg"
          title={COMMON_WORDS.goToItsCall}
          onPress={() => router.navigate(`/job/${id}/call/${at}`)}
        />
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {planned?.device.title ?? CAUSES_WORDS.likelyCauses}
        </Words>
        <Words tone="second">{CAUSES_WORDS.whyMayItNotBeAs}</Words>
      </View>
      <Refusals issues={issuesOf(error)} />
      <View style={{ gap: 2 }}>
        <Words size="strong" heading={2}>
          {since === 0
            ? COMMON_WORDS.whatWasSeen
            : CAUSES_WORDS.whatWasSeenSince({ since: timeOf(since) })}
        </Words>
        {seen.length > 0 ? null : differs ? (
          <Words size="second">· {evidenceWords(differs)}</Words>
        ) : (
          <Words size="second" tone="second">
            {CAUSES_WORDS.nothingThatWantsAnExplanationAsk}
          </Words>
        )}
        {seen.map((sign) => (
          <Words key={sign} size="second">
            · {SIGN_WORDS[sign]}
          </Words>
        ))}
      </View>
      {job && others !== '' ? (
        <View style={{ gap: 2 }}>
          <Words size="strong" heading={2}>
            {CAUSES_WORDS.whoHasItsAddress}
          </Words>
          <Claimants plan={job.plan} found={others} />
        </View>
      ) : null}
      {since > 0 ? (
        <Button
          type="clear"
          containerStyle={{ alignSelf: 'flex-start' }}
          title={CAUSES_WORDS.allThatWasSeenBeforeToo}
          onPress={() => setSince(0)}
        />
      ) : null}
      <View style={{ gap: 8 }}>
        <Words size="strong" heading={2}>
          {CAUSES_WORDS.whatDoYouSeeAtThe}
        </Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          {SEEN_AT_DEVICE.map(({ sign, title }) => (
            <Toggle key={sign} title={title} isOn={said.has(sign)} onPress={() => toggle(sign)} />
          ))}
        </View>
      </View>
      <Causes {...{ job: id, at, causes }} onAsked={setSince} />
    </Page>
  );
}

function useSigns(
  job: string,
  planned: PlannedInterface | undefined,
  said: Said,
  since: number,
): Said | undefined {
  const { job: now } = useJob(job);
  const field = useField();
  const traffic = useTraffic();
  const [heard, stations, present] = [useHeard(), useStations(), usePresent()];
  const evidence = useQuery({
    ...reading(acts.readEvidence, { job, interface: planned?.at.id ?? '' }),
    enabled: planned !== undefined,
  }).data;
  const found = now ? settingsFound(now.plan, now.view) : new Map();
  const byPlan = useQuery(neededRoutesQuery(now?.now)).data ?? [];
  const asFound = useQuery(foundRoutesQuery(now?.now, found)).data ?? [];
  const routes = found.size > 0 ? asFound : byPlan;
  if (!now || !planned) return undefined;
  const info = now.view.devices
    .flatMap(({ interfaces }) => interfaces)
    .find(({ id }) => id === planned.at.id);
  const farFails = routes.some(({ to, works }) => to === planned.at.id && works === 'no');
  const macText = info?.mac ?? info?.askedBy ?? info?.arrived ?? null;
  const known = knownOf(
    now.plan,
    { ...planned, macText },
    {
      field: field && traffic ? { ...field, ...traffic } : undefined,
      ...{ heard, stations, present },
      evidence: evidence ?? [],
    },
    { farFails, said: [...said] },
  );
  return signsOf(knownSince(known, since));
}
