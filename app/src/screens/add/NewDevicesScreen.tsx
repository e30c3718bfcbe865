import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { kindsOf, WAY_WORDS } from '@ipsonomo/core';
import { useAddDevices } from '../../data';
import { Card, Choice, Field, Page, Refusals, Words } from '../../parts';
import { usePlan } from '../plan/use-plan';
import { issuesOf, plural } from '../words';
import { useNewDevices, type Draft } from './use-new-devices';

/** Devices of one kind: a name and the next free address are proposed for each. */
export function NewDevicesScreen({ job }: { readonly job: string }) {
  const router = useRouter();
  const { plan } = usePlan(job);
  const form = useNewDevices(plan);
  const add = useAddDevices(job);
  const subnet = plan?.subnets.find((one) => one.id === form.subnetId);
  const save = () =>
    add.mutate(
      form.drafts.map((draft) => draft.device),
      { onSuccess: () => router.navigate(`/job/${job}/plan`) },
    );
  const full = form.isFull && subnet ? [{ code: 'address.full', where: subnet.name }] : [];
  return (
    <Page
      action={
        <>
          <Words size="second" tone="second" lines={1}>
            {summaryOf(form.drafts)}
          </Words>
          <Button
            size="lg"
            title={`Add ${plural(form.drafts.length, 'device')}`}
            disabled={!form.isReady}
            loading={add.isPending}
            onPress={save}
          />
        </>
      }
    >
      <Words size="title" heading={1}>
        New devices
      </Words>
      <Choice
        label="Kind"
        options={(plan ? kindsOf(plan) : []).map((kind) => ({
          value: kind.id,
          title: kind.name,
          detail: `${kind.maker} · ${kind.ways.map(({ way }) => WAY_WORDS[way]).join(', ')}`,
        }))}
        value={form.kindId}
        onChange={form.setKindId}
      />
      <Choice
        label="Subnet"
        options={(plan?.subnets ?? []).map(({ id, name }) => ({ value: id, title: name }))}
        value={form.subnetId}
        onChange={form.setSubnetId}
      />
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Field label="How many" value={form.count} onChange={form.setCount} numeric />
        </View>
        <View style={{ flex: 2 }}>
          <Field
            label="Cabinet"
            value={form.cabinet}
            onChange={form.setCabinet}
            placeholder="FH2"
          />
        </View>
      </View>
      <Refusals issues={full} />
      {form.drafts.map((draft, index) => (
        <DraftCard
          key={index}
          draft={draft}
          onChange={(correction) => form.correct(index, correction)}
        />
      ))}
      <Refusals issues={issuesOf(add.error)} />
    </Page>
  );
}

/** What is about to be added, beside the button that does it. */
function summaryOf(drafts: readonly Draft[]): string {
  const [first] = drafts;
  const last = drafts.at(-1);
  if (!first || !last) return 'Nothing to add yet.';
  const one = ({ device }: Draft) => `${device.name}, ${device.address}`;
  return first === last ? one(first) : `${one(first)} … ${one(last)}`;
}

interface DraftProps {
  readonly draft: Draft;
  readonly onChange: (correction: { title?: string; name?: string; address?: string }) => void;
}

function DraftCard({ draft, onChange }: DraftProps) {
  const { device, addressIssue, nameIssue } = draft;
  return (
    <Card>
      <Field
        label="What people call it"
        value={device.title}
        onChange={(title) => onChange({ title })}
      />
      <Field
        label="Host name"
        value={device.name}
        onChange={(name) => onChange({ name })}
        issue={nameIssue}
        figures
      />
      <Field
        label="Address"
        value={device.address}
        onChange={(address) => onChange({ address })}
        issue={addressIssue}
        figures
      />
    </Card>
  );
}
