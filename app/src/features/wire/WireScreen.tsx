import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { AdapterView, WireChoice } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { WIRE_WORDS } from '@ipsonomo/language/screens/wire';
import { acts, adaptersQuery, useAct, useField, usePlan, useTraffic } from '../../data';
import { Choice, Notice, Page, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';
import { officeClashes } from './office';
import { RehearseCard, useIsRehearsal } from './rehearsal/RehearseCard';
import { SocketCard } from './SocketCard';
import { WhoIsThere } from './WhoIsThere';

const PRACTICE = 'practice';
const REHEARSAL = 'rehearsal';

/** Which wire is in use, and whether somebody listens on it. */
export function WireScreen({ job }: { readonly job: string }) {
  const router = useRouter();
  const field = useField();
  const { data: adapters } = useQuery(adaptersQuery);
  const { view } = usePlan(job);
  const choose = useAct(acts.chooseWire, { job });
  const listen = useAct(acts.listen, { job });
  const rest = useAct(acts.rest, { job });
  const isRehearsal = useIsRehearsal(job);
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
        <TakeTheWire choice={choose.variables} onTake={choose.mutate} />
      ) : null}
      <Choice
        label={WIRE_WORDS.whereIpsonomoListensAndSpeaks}
        options={wiresFor(job, adapters ?? [], isRehearsal)}
        value={value}
        onChange={pick}
      />
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
      {listening ? <SocketCard job={job} /> : null}
      {listening ? <WhoIsThere job={job} /> : null}
      {listening ? <Counters /> : null}
      {isRehearsal ? null : <RehearseCard job={job} />}
    </Page>
  );
}

/** A rehearsal has its own site and takes no adapter. */
function wiresFor(job: string, adapters: readonly AdapterView[], isRehearsal: boolean) {
  if (isRehearsal)
    return [
      { value: REHEARSAL, title: REHEARSAL_WORDS.ownSite, detail: REHEARSAL_WORDS.ownSiteMore },
    ];
  return [
    {
      value: PRACTICE,
      title: COMMON_WORDS.practiceSite,
      detail: WIRE_WORDS.theSimulatedHatcheryThatShipsWith,
    },
    ...adapters.map((adapter) => ({
      value: adapter.name,
      title: adapter.name,
      detail: adapterWords(adapter, job),
    })),
  ];
}

const isInUse = (error: unknown): boolean =>
  issuesOf(error)?.some(({ code }) => code === 'wire.inUse') === true;

/** Somebody else listens there: it is asked first, and both are told. */
function TakeTheWire({
  choice,
  onTake,
}: {
  readonly choice: WireChoice;
  readonly onTake: (choice: WireChoice) => void;
}) {
  return (
    <View style={{ alignItems: 'flex-start' }}>
      <Button
        type="outline"
        title={WIRE_WORDS.endThatRunAndTakeThe}
        onPress={() => onTake({ ...choice, evenSo: true })}
      />
    </View>
  );
}

function adapterWords(adapter: AdapterView, job: string): string {
  const kind = adapter.wireless ? 'radio' : adapter.virtual ? 'virtual' : 'cable';
  const link = adapter.link === 'up' ? 'link' : WIRE_WORDS.noLink2;
  const other =
    adapter.job && adapter.job.id !== job ? [WIRE_WORDS.theWireOf({ name: adapter.job.name })] : [];
  return [...other, kind, link, adapter.mac, ...adapter.addresses].join(' · ');
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
