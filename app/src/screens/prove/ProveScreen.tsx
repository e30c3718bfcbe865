import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { evidenceWords, type DeviceInfo, type InterfaceView, type JobView } from '@ipsonomo/core';
import { useCheck, useWire } from '../../data';
import {
  AddressText,
  MacText,
  Page,
  Refusals,
  Row,
  StageNotches,
  timeOf,
  Words,
} from '../../parts';
import { useWide } from '../../theme';
import { usePlan } from '../plan/use-plan';
import { issuesOf, lengthOf, plural } from '../words';
import { Temporary } from './Temporary';

interface Entry {
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
}

/** Expected against found, for every device of the job. */
export function ProveScreen({ job }: { readonly job: string }) {
  const { view, error } = usePlan(job);
  const { field } = useWire();
  const router = useRouter();
  const check = useCheck(job);
  const entries =
    view?.devices.flatMap((device) => device.interfaces.map((at) => ({ device, at }))) ?? [];
  const groups = groupsOf(entries);
  const asking = field?.tasks.filter((task) => task.kind === 'check').length ?? 0;
  return (
    <Page
      maxWidth={1100}
      action={
        <>
          <Refusals issues={issuesOf(check.error)} />
          <Button
            size="lg"
            title={asking > 0 ? `Asking, ${asking} to go` : `Ask all ${entries.length} devices`}
            disabled={entries.length === 0}
            loading={check.isPending}
            onPress={() => check.mutate(entries.map(({ at }) => at.id))}
          />
        </>
      }
    >
      <Words size="title" heading={1}>
        {view
          ? `${plural(groups.proven.length, 'device')} of ${entries.length} found as planned`
          : 'Prove'}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {view ? (
        <>
          <Temporary job={job} view={view} />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
            <Button
              type="outline"
              title="Routes there and back"
              onPress={() => router.navigate(`/job/${job}/routes`)}
            />
            <Button
              type="outline"
              title="Cold start"
              onPress={() => router.navigate(`/job/${job}/drill`)}
            />
            <Button
              type="outline"
              title="Error code"
              accessibilityLabel="What does a code mean?"
              onPress={() => router.navigate(`/job/${job}/codes`)}
            />
          </View>
          <Group job={job} view={view} title="Found otherwise" entries={groups.otherwise} />
          <Group job={job} view={view} title="Nothing answers" entries={groups.silent} />
          <Group job={job} view={view} title="Not asked yet" entries={groups.open} />
          <Group job={job} view={view} title="Found as planned" entries={groups.proven} />
        </>
      ) : null}
    </Page>
  );
}

function groupsOf(entries: readonly Entry[]) {
  const of = (kind: string | undefined) => entries.filter(({ at }) => at.check?.kind === kind);
  return {
    otherwise: of('contradicted'),
    silent: of('no-answer'),
    open: of(undefined),
    proven: of('found-as-planned'),
  };
}

interface GroupProps {
  readonly job: string;
  readonly view: JobView;
  readonly title: string;
  readonly entries: readonly Entry[];
}

function Group({ job, view, title, entries }: GroupProps) {
  const router = useRouter();
  if (entries.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        {title} · {entries.length}
      </Words>
      {entries.map(({ device, at }) => (
        <Row
          key={at.id}
          label={device.title}
          onPress={() => router.navigate(`/job/${job}/call/${at.id}`)}
        >
          <Finding device={device} at={at} length={networkLength(view, at)} />
        </Row>
      ))}
    </View>
  );
}

const networkLength = (view: JobView, at: InterfaceView): number =>
  lengthOf(view.subnets.find((one) => one.id === at.subnetId)?.network);

function Finding({ device, at, length }: Entry & { readonly length: number }) {
  const wide = useWide();
  const { check } = at;
  const found = check?.facts['found'];
  const title = (
    <Words size="strong" lines={1}>
      {device.title}
    </Words>
  );
  const notches = <StageNotches notches={at.notches} />;
  return (
    <View style={{ gap: 4 }}>
      <View style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
        <View style={{ flex: 2 }}>
          {title}
          {wide ? null : notches}
        </View>
        {wide ? (
          <View style={{ flex: 4 }}>
            <VerdictWords check={check} lines={1} />
          </View>
        ) : null}
        <View style={wide ? { width: 150 } : null}>
          <AddressText address={at.address} length={length} still />
        </View>
        {wide ? notches : null}
      </View>
      {wide ? null : <VerdictWords check={check} />}
      {check?.kind === 'contradicted' ? (
        <View style={{ flexDirection: wide ? 'row' : 'column', columnGap: 24 }}>
          <Pair name="expected" value={at.mac ?? 'no MAC bound'} />
          <Pair name="found" value={typeof found === 'string' ? found : 'nothing'} />
        </View>
      ) : null}
    </View>
  );
}

function VerdictWords({
  check,
  lines,
}: {
  readonly check: InterfaceView['check'];
  readonly lines?: number;
}) {
  if (!check) return null;
  const isFound = check.kind === 'found-as-planned';
  return (
    <Words size="second" tone={isFound ? 'moss' : 'brick'} {...(lines ? { lines } : {})}>
      {isFound ? '✓ ' : '× '}
      {evidenceWords(check.kind, check.facts)} · {timeOf(check.at)}
    </Words>
  );
}

function Pair({ name, value }: { readonly name: string; readonly value: string }) {
  return (
    <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
      <View style={{ width: 72 }}>
        <Words size="caption" tone="second">
          {name}
        </Words>
      </View>
      <MacText mac={value} size={15} />
    </View>
  );
}
