import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import {
  findKind,
  findSubnet,
  kindsOf,
  OTHER_DEVICE,
  OTHER_SILENT_DEVICE,
  type Kind,
  type Plan,
} from '@ipsonomo/core/plan';
import { issueOf } from '@ipsonomo/core/net';
import { WAY_WORDS } from '@ipsonomo/language';
import { ADD_WORDS } from '@ipsonomo/language/screens/add';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { useEdit, usePlan } from '../../../data';
import { Card, Field, Page, Pick, Refusals, Toggle, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { issuesOf } from '../../words';
import type { Correction, Draft, Frame } from './drafts';
import { useNewDevices } from './use-new-devices';

/** Devices of one kind: a name and the next free address are proposed for each. */
export function NewDevicesScreen({
  job,
  kind,
}: {
  readonly job: string;
  /** One that was just made, and is meant. */
  readonly kind?: string | undefined;
}) {
  const router = useRouter();
  const { plan } = usePlan(job);
  const form = useNewDevices(job, plan, kind);
  const edit = useEdit(job);
  const { frame, change, drafts } = form;
  const subnet = plan && findSubnet(plan, frame.subnetId);
  const save = () =>
    edit.mutate(
      {
        edits: form.edits(),
        why: ADD_WORDS.added({
          drafts:
            drafts.length > 1
              ? ADD_WORDS.device({ drafts: drafts.length })
              : (drafts[0]?.title ?? ''),
        }),
      },
      {
        onSuccess: () => {
          form.forget();
          router.navigate(`/job/${job}/plan`);
        },
      },
    );
  const full = form.isFull && subnet ? [issueOf('address.full', subnet.name)] : [];
  return (
    <Page
      action={
        <>
          <Words size="second" tone="second" lines={1}>
            {summaryOf(drafts)}
          </Words>
          <Button
            size="lg"
            title={ADD_WORDS.addDevice({ drafts: drafts.length })}
            disabled={!form.isReady}
            loading={edit.isPending}
            onPress={save}
          />
        </>
      }
    >
      <Words size="title" heading={1}>
        {ADD_WORDS.newDevices}
      </Words>
      {plan ? <What {...{ job, plan, frame, change }} /> : null}
      <Beside>
        <Field label={ADD_WORDS.howMany} value={form.count} onChange={form.setCount} numeric />
        <Field
          label={ADD_WORDS.area}
          value={frame.area}
          onChange={(area) => change({ area })}
          placeholder={PLAN_WORDS.filterHall}
        />
        <Field
          label={ADD_WORDS.cabinet}
          value={frame.cabinet}
          onChange={(cabinet) => change({ cabinet })}
          placeholder={PLAN_WORDS.fh2}
        />
      </Beside>
      <Beside>
        <Field
          label={ADD_WORDS.whatPeopleCallThem({ count: '{n}' })}
          value={frame.titles}
          onChange={(titles) => change({ titles })}
          placeholder={ADD_WORDS.conveyorDrive({ count: '{n}' })}
        />
        <Field
          label={ADD_WORDS.patternOfTheirHostNames}
          value={frame.pattern}
          onChange={(pattern) => change({ pattern })}
          placeholder={plan?.settings.namePattern || '{cabinet}-{stem}-{n}'}
          issue={form.wrongPattern}
          figures
        />
      </Beside>
      <Refusals issues={full} />
      {drafts.map((draft, index) => (
        <DraftCard
          key={index}
          draft={draft}
          onChange={(correction) => form.correct(index, correction)}
        />
      ))}
      <Refusals issues={issuesOf(edit.error)} />
    </Page>
  );
}

interface WhatProps {
  readonly job: string;
  readonly plan: Plan;
  readonly frame: Frame;
  readonly change: (part: Partial<Frame>) => void;
}

/** Kind, way, subnet and controller. */
function What({ job, plan, frame, change }: WhatProps) {
  const router = useRouter();
  const isOther = frame.kindId === OTHER_DEVICE.id || frame.kindId === OTHER_SILENT_DEVICE.id;
  const isSilent = frame.kindId === OTHER_SILENT_DEVICE.id;
  const ways = findKind(plan, frame.kindId)?.ways ?? [];
  const controllers = plan.devices.filter(
    (one) => findKind(plan, one.kindId)?.role === 'controllers',
  );
  return (
    <>
      <Pick
        label={PLAN_WORDS.kind}
        options={kindsOf(plan)
          .filter((kind) => kind.id !== OTHER_SILENT_DEVICE.id)
          .map((kind) => ({ value: kind.id, title: kind.name, detail: detailOf(kind) }))}
        value={isOther ? OTHER_DEVICE.id : frame.kindId}
        onChange={(kindId) => change({ kindId, way: undefined })}
      />
      {isOther ? (
        <Toggle
          title={ADD_WORDS.answersPing}
          isOn={!isSilent}
          onPress={() => change({ kindId: isSilent ? OTHER_DEVICE.id : OTHER_SILENT_DEVICE.id })}
        />
      ) : null}
      <Button
        type="outline"
        title={ADD_WORDS.aKindOfYourOwn}
        onPress={() => router.navigate(`/job/${job}/new-kind`)}
      />
      {ways.length > 1 ? (
        <Pick
          label={ADD_WORDS.howTheyGetTheirAddress}
          options={ways.map(({ way }) => ({ value: way, title: WAY_WORDS[way] }))}
          value={frame.way ?? ways[0]?.way}
          onChange={(way) => change({ way })}
        />
      ) : null}
      <Pick
        label={COMMON_WORDS.subnet}
        options={plan.subnets.map(({ id, name }) => ({ value: id, title: name }))}
        value={frame.subnetId}
        onChange={(subnetId) => change({ subnetId })}
      />
      {controllers.length > 0 ? (
        <Pick
          label={ADD_WORDS.theirController}
          options={[
            { value: undefined, title: 'none' },
            ...controllers.map(({ id, title }) => ({ value: id, title })),
          ]}
          value={frame.controllerId}
          onChange={(controllerId) => change({ controllerId })}
        />
      ) : null}
    </>
  );
}

const detailOf = (kind: Kind): string =>
  kind.id === OTHER_DEVICE.id
    ? ADD_WORDS.needsNoKind
    : `${kind.maker} · ${kind.ways.map(({ way }) => WAY_WORDS[way]).join(', ')}`;

/** What is about to be added, beside the button that does it. */
function summaryOf(drafts: readonly Draft[]): string {
  const [first] = drafts;
  const last = drafts.at(-1);
  if (!first || !last) return ADD_WORDS.nothingToAddYet;
  const one = ({ name, address }: Draft) => `${name}, ${address}`;
  return first === last ? one(first) : `${one(first)} … ${one(last)}`;
}

interface DraftProps {
  readonly draft: Draft;
  readonly onChange: (correction: Correction) => void;
}

function DraftCard({ draft, onChange }: DraftProps) {
  const { title, name, address, addressIssue, nameIssue } = draft;
  return (
    <Card>
      <Beside>
        <Field
          label={PLAN_WORDS.whatPeopleCallIt}
          value={title}
          onChange={(next) => onChange({ title: next })}
        />
        <Field
          label={PLAN_WORDS.hostName}
          value={name}
          onChange={(next) => onChange({ name: next })}
          issue={nameIssue}
          figures
        />
        <Field
          label={COMMON_WORDS.address}
          value={address}
          onChange={(next) => onChange({ address: next })}
          issue={addressIssue}
          figures
        />
      </Beside>
    </Card>
  );
}

/** Fields one below the other on a phone, beside each other where there is room. */
function Beside({ children }: { readonly children: readonly React.ReactNode[] }) {
  const wide = useWide();
  if (!wide) return <View style={{ gap: 12 }}>{children}</View>;
  return (
    <View style={{ flexDirection: 'row', gap: 12 }}>
      {children.map((child, index) => (
        <View key={index} style={{ flex: 1 }}>
          {child}
        </View>
      ))}
    </View>
  );
}
