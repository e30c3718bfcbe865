import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import {
  checkAddress,
  findKind,
  findSubnet,
  parseHostName,
  parseIpv4,
  snagKey,
  snagSentence,
  WAY_WORDS,
  type DeviceInfo,
  type InterfaceView,
  type Issue,
  type Plan,
} from '@ipsonomo/core';
import { useChangeDevice, useRemoveDevice } from '../../data';
import {
  AddressText,
  Card,
  Field,
  MacText,
  Notice,
  Page,
  Refusals,
  StageNotches,
  Words,
} from '../../parts';
import { useWide } from '../../theme';
import { issuesOf, lengthOf, placeOf } from '../words';
import { usePlan } from '../plan/use-plan';
import { Seen } from './Seen';

/** One device of the plan: what is wanted, what was seen, and its correction. */
export function DevicePane({ job, device: id }: { readonly job: string; readonly device: string }) {
  const { view, plan } = usePlan(job);
  const wide = useWide();
  const router = useRouter();
  const device = view?.devices.find((one) => one.id === id);
  const at = device?.interfaces[0];
  if (!view || !plan || !device || !at) return <Page>{null}</Page>;
  const subnet = view.subnets.find((one) => one.id === at.subnetId);
  const kind = findKind(plan, device.kindId);
  return (
    <Page
      action={
        <Button
          size="lg"
          type={wide ? 'outline' : 'solid'}
          title={at.stage === 'proven' ? 'See its call' : 'Go to its call'}
          onPress={() => router.navigate(`/job/${job}/call/${at.id}`)}
        />
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="second" tone="second">
          {placeOf(device)} · {WAY_WORDS[device.way]}
        </Words>
        <Words size="device" heading={2}>
          {device.title}
        </Words>
        <AddressText size="call" address={at.address} length={lengthOf(subnet?.network)} />
        <StageNotches notches={at.notches} size={18} />
      </View>
      {device.snags.map((snag) => (
        <Notice key={snagKey(snag)} tone={snag.severity === 'wrong' ? 'brick' : 'ochre'}>
          {snagSentence(snag)}
        </Notice>
      ))}
      <Card>
        <Fact name="host name">{device.name}</Fact>
        <Fact name="kind">{kind ? `${kind.maker} · ${kind.name}` : device.kindId}</Fact>
        <Fact name="subnet">{`${subnet?.name} · ${subnet?.network}`}</Fact>
        <Fact name="MAC">{at.mac ? <MacText mac={at.mac} /> : 'awaited'}</Fact>
      </Card>
      <Change key={device.id} {...{ job, device, at, plan }} />
      <Seen job={job} at={at} />
    </Page>
  );
}

function Fact({ name, children }: { readonly name: string; readonly children: React.ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', gap: 12 }}>
      <View style={{ width: 92 }}>
        <Words size="second" tone="second">
          {name}
        </Words>
      </View>
      <View style={{ flex: 1 }}>
        {typeof children === 'string' ? <Words size="second">{children}</Words> : children}
      </View>
    </View>
  );
}

interface ChangeProps {
  readonly job: string;
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
  readonly plan: Plan;
}

function Change({ job, device, at, plan }: ChangeProps) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [sure, setSure] = useState(false);
  const [title, setTitle] = useState(device.title);
  const [name, setName] = useState(device.name);
  const [address, setAddress] = useState(at.address);
  const change = useChangeDevice(job, device.id);
  const removal = useRemoveDevice(job);
  if (!open)
    return <Button type="outline" title="Change name or address" onPress={() => setOpen(true)} />;
  const addressIssue = addressIssueOf(plan, at, address);
  const nameRead = parseHostName(name);
  const nameIssue = nameRead.ok ? undefined : nameRead.error;
  const save = () => change.mutate({ title, name, address }, { onSuccess: () => setOpen(false) });
  return (
    <Card strong>
      <Field label="What people call it" value={title} onChange={setTitle} />
      <Field label="Host name" value={name} onChange={setName} issue={nameIssue} figures />
      <Field label="Address" value={address} onChange={setAddress} issue={addressIssue} figures />
      <Refusals issues={issuesOf(change.error ?? removal.error)} />
      <Button
        title="Save"
        disabled={!!addressIssue || !!nameIssue || !title.trim()}
        loading={change.isPending}
        onPress={save}
      />
      <Button type="outline" title="Leave it as it was" onPress={() => setOpen(false)} />
      <Button
        type="outline"
        title={sure ? `Yes, take ${device.title} out of the plan` : 'Take it out of the plan'}
        onPress={() =>
          sure
            ? removal.mutate(device.id, { onSuccess: () => router.navigate(`/job/${job}/plan`) })
            : setSure(true)
        }
      />
    </Card>
  );
}

function addressIssueOf(plan: Plan, at: InterfaceView, text: string): Issue | undefined {
  const address = parseIpv4(text);
  if (!address.ok) return address.error;
  const subnet = findSubnet(plan, at.subnetId);
  return subnet && checkAddress(plan, subnet, address.value, at.id)[0];
}
