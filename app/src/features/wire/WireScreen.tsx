import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { AdapterView, WireChoice } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { WIRE_WORDS } from '@ipsonomo/language/screens/wire';
import { acts, adaptersQuery, jobsQuery, useAct, useField, usePlan, useTraffic } from '../../data';
import { Choice, Notice, Page, Refusals, TwoColumns, Words } from '../../parts';
import { issuesOf } from '../words';
import { Laptops } from './crew/Laptops';
import { officeClashes } from './office';
import { RehearseCard, useIsRehearsal } from './rehearsal/RehearseCard';
import { SocketCard } from './SocketCard';
import { useHeardRates } from './use-heard-rates';
import { PRACTICE, REHEARSAL, wiresFor } from './wires-for';
import { WhoIsThere } from './WhoIsThere';

/** Which wire is in use, and whether somebody listens on it. */
export function WireScreen({ job }: { readonly job: string }) {
  const router = useRouter();
  const field = useField();
  const { data: adapters, dataUpdatedAt } = useQuery(adaptersQuery);
  const { view } = usePlan(job);
  const choose = useAct(acts.chooseWire, { job });
  const listen = useAct(acts.listen, { job });
  const rest = useAct(acts.rest, { job });
  const isRehearsal = useIsRehearsal(job);
  const { data: jobs = [] } = useQuery(jobsQuery);
  const heard = useHeardRates(adapters, dataUpdatedAt);
  const hasSite = jobs.find(({ id }) => id === job)?.hasPracticeSite ?? false;
  const options = wiresFor({ job, adapters: adapters ?? [], heard, hasSite, isRehearsal });
  const value = field?.source?.replace(/^live:/, '') ?? undefined;
  const listening = !!field?.runId;
  const pick = (name: string) => {
    const choice: WireChoice =
      name === PRACTICE || name === REHEARSAL
        ? { kind: 'practice' }
        : { kind: 'live', adapter: name };
    choose.mutate(choice);
  };
  return (
    <Page
      maxWidth={1100}
      action={
        listening ? (
          <Button
            size="lg"
            title={WIRE_WORDS.endListening}
            loading={rest.isPending}
            onPress={() => rest.mutate()}
          />
        ) : (
          <Button
            size="lg"
            title={COMMON_WORDS.startListening}
            disabled={field?.source === null}
            loading={listen.isPending}
            onPress={() =>
              listen.mutate(undefined, {
                onSuccess: () => router.navigate(`/job/${job}/assign`),
              })
            }
          />
        )
      }
    >
      <Words size="title" heading={1}>
        {WIRE_WORDS.theWire}
      </Words>
      <Refusals issues={issuesOf(choose.error ?? listen.error ?? rest.error)} />
      {isInUse(choose.error) && choose.variables ? (
        <TakeTheWire
          choice={choose.variables}
          owner={ownerOf(choose.variables, adapters ?? [])}
          onTake={choose.mutate}
        />
      ) : null}
      {field?.source === null && !isRehearsal ? (
        <Notice tone="plain" title={WIRE_WORDS.noWireYet}>
          {options.length > 0 ? WIRE_WORDS.chooseOne : WIRE_WORDS.noAdapterHere}
        </Notice>
      ) : null}
      <TwoColumns second={<WhatGoesOn job={job} listening={listening} isRehearsal={isRehearsal} />}>
        {options.length > 0 ? (
          <Choice
            label={WIRE_WORDS.whereIpsonomoListensAndSpeaks}
            options={options}
            value={value}
            onChange={pick}
          />
        ) : null}
        {officeClashes(view?.subnets ?? [], adapters ?? [], value).map((one) => (
          <Notice
            key={one.adapter + one.address}
            tone="ochre"
            title={WIRE_WORDS.isInTheSameSubnetAs({ adapter: one.adapter, subnet: one.subnet })}
          >
            {WIRE_WORDS.itHasWhatIsMeantFor({ address: one.address, adapter: one.adapter })}
          </Notice>
        ))}
        {field?.source === PRACTICE || isRehearsal ? (
          <Button
            type="outline"
            title={WIRE_WORDS.goToTheCabinetsOfThe}
            onPress={() => router.navigate(`/job/${job}/cabinet`)}
          />
        ) : null}
        {isRehearsal ? (
          <Button
            type="outline"
            title={REHEARSAL_WORDS.rehearsal}
            onPress={() => router.navigate(`/job/${job}/rehearsal`)}
          />
        ) : null}
      </TwoColumns>
    </Page>
  );
}

/** What is heard on it, and at the wires of others. */
function WhatGoesOn({
  job,
  listening,
  isRehearsal,
}: {
  readonly job: string;
  readonly listening: boolean;
  readonly isRehearsal: boolean;
}) {
  return (
    <>
      {listening ? <SocketCard job={job} /> : null}
      {listening ? <WhoIsThere job={job} /> : null}
      {listening ? <Counters /> : null}
      <Laptops />
      {isRehearsal ? null : <RehearseCard job={job} />}
    </>
  );
}

const isInUse = (error: unknown): boolean =>
  issuesOf(error)?.some(({ code }) => code === 'wire.inUse') === true;

/** The job whose wire it is that was wanted. */
const ownerOf = (choice: WireChoice, adapters: readonly AdapterView[]): AdapterView['job'] =>
  choice.kind === 'live'
    ? (adapters.find(({ name }) => name === choice.adapter)?.job ?? null)
    : null;

/** Somebody else listens there: it is asked first, and both are told. */
function TakeTheWire({
  choice,
  owner,
  onTake,
}: {
  readonly choice: WireChoice;
  readonly owner: AdapterView['job'];
  readonly onTake: (choice: WireChoice) => void;
}) {
  const router = useRouter();
  return (
    <View style={{ alignItems: 'flex-start', gap: 8 }}>
      {owner ? (
        <Button
          type="outline"
          title={WIRE_WORDS.goToTheWireOf({ name: owner.name })}
          onPress={() => router.navigate(`/job/${owner.id}/wire`)}
        />
      ) : null}
      <Button
        type="outline"
        title={WIRE_WORDS.endThatRunAndTakeThe}
        onPress={() => onTake({ ...choice, evenSo: true })}
      />
    </View>
  );
}

function Counters() {
  const traffic = useTraffic();
  if (!traffic) return null;
  const { received, sent, malformed, requests, strangersDropped } = traffic.counters;
  const rows: readonly (readonly [string, number])[] = [
    [WIRE_WORDS.framesHeard, received],
    [WIRE_WORDS.requestsForAnAddress, requests],
    [WIRE_WORDS.framesSent, sent],
    [WIRE_WORDS.framesThatCouldNotBeRead, malformed],
    [WIRE_WORDS.strangersForgottenAgain, strangersDropped],
  ];
  return (
    <View style={{ gap: 4 }}>
      <Words size="strong" heading={2}>
        {WIRE_WORDS.inThisRun}
      </Words>
      {rows.map(([name, count]) => (
        <Words key={name} size="second" tone="second">
          {count} {name}
        </Words>
      ))}
    </View>
  );
}
