import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import type { DeviceInfo, InterfaceView } from '@ipsonomo/core/api';
import { parseHostName } from '@ipsonomo/core/names';
import { parseIpv4, type Issue } from '@ipsonomo/core/net';
import {
  changeOf,
  checkAddress,
  editsOfTakingOut,
  findDoc,
  findSubnet,
  type Edit,
  type Plan,
  type PlanDoc,
  type ThingDoc,
} from '@ipsonomo/core/plan';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { useEdit } from '../../../data';
import { Card, Field, Refusals, useKept } from '../../../parts';
import { ConflictPane, conflictsOf } from '../conflict/ConflictPane';
import { issuesOf } from '../../words';

interface Props {
  readonly job: string;
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
  readonly plan: Plan;
  readonly doc: PlanDoc;
}

/** What stood in the plan when the form was opened: somebody else may change it meanwhile. */
interface Opened {
  readonly device: ThingDoc;
  readonly at: ThingDoc;
}

interface Typed {
  readonly title: string;
  readonly name: string;
  readonly address: string;
}

const typedOf = ({ device, at }: Opened): Typed => ({
  ...{ title: String(device['title']), name: String(device['name']) },
  address: String(at['address']),
});

/** Correcting one device by hand. */
export function Change(props: Props) {
  const { doc, device, at } = props;
  const [opened, setOpened] = useState<Opened>();
  const open = () => {
    const things = {
      device: findDoc(doc, 'device', device.id),
      at: findDoc(doc, 'interface', at.id),
    };
    if (things.device && things.at) setOpened({ device: things.device, at: things.at });
  };
  if (!opened)
    return <Button type="outline" title={PLAN_WORDS.changeNameOrAddress} onPress={open} />;
  return <Form {...props} seen={opened} close={() => setOpened(undefined)} />;
}

interface FormProps extends Props {
  readonly seen: Opened;
  readonly close: () => void;
}

function Form({ job, device, at, plan, doc, seen, close }: FormProps) {
  // What was seen is kept with what was typed: whoever changed it since is met, and not written over.
  const first = useMemo(() => ({ seen, typed: typedOf(seen) }), [seen]);
  const [{ seen: opened, typed }, keep, forget] = useKept(`change ${at.id}`, first);
  const { title, name, address } = typed;
  const set = (field: keyof Typed) => (text: string) =>
    keep((all) => ({ ...all, typed: { ...all.typed, [field]: text } }));
  const onClose = () => {
    forget();
    close();
  };
  const edit = useEdit(job);
  const conflicts = conflictsOf(edit.error);
  const addressIssue = addressIssueOf(plan, at, address);
  const nameIssue = nameIssueOf(plan, device, name);
  const write = (edits: readonly Edit[]) =>
    edits.length === 0
      ? onClose()
      : edit.mutate({ edits, why: COMMON_WORDS.changed({ title }) }, { onSuccess: onClose });
  const save = () =>
    write([
      ...changeOf('device', opened.device, {
        title: title.trim(),
        ...(name === typedOf(opened).name ? {} : { name, isNameTyped: true }),
      }),
      ...changeOf('interface', opened.at, { address }),
    ]);
  if (conflicts.length > 0)
    return (
      <Card strong>
        <ConflictPane
          {...{ doc, conflicts }}
          edits={edit.variables?.edits ?? []}
          isBusy={edit.isPending}
          onSettle={write}
          onLeave={onClose}
        />
      </Card>
    );
  return (
    <Card strong>
      <Field label={PLAN_WORDS.whatPeopleCallIt} value={title} onChange={set('title')} />
      <Field
        label={PLAN_WORDS.hostName}
        value={name}
        onChange={set('name')}
        issue={nameIssue}
        figures
      />
      <Field
        label={COMMON_WORDS.address}
        value={address}
        onChange={set('address')}
        issue={addressIssue}
        figures
      />
      <Refusals issues={issuesOf(edit.error)} />
      <Button
        title={PLAN_WORDS.save}
        disabled={!!addressIssue || !!nameIssue || !title.trim()}
        loading={edit.isPending}
        onPress={save}
      />
      <Button type="outline" title={PLAN_WORDS.leaveItAsItWas} onPress={onClose} />
      <Removal {...{ job, device, doc }} />
    </Card>
  );
}

function Removal({ job, device, doc }: Pick<Props, 'job' | 'device' | 'doc'>) {
  const router = useRouter();
  const [sure, setSure] = useState(false);
  const edit = useEdit(job);
  const takeOut = () =>
    edit.mutate(
      {
        edits: editsOfTakingOut(doc, new Set([device.id])),
        why: PLAN_WORDS.tookOutOfThePlan({ title: device.title }),
      },
      { onSuccess: () => router.navigate(`/job/${job}/plan`) },
    );
  return (
    <>
      <Refusals issues={issuesOf(edit.error)} />
      <Button
        type="outline"
        title={
          sure
            ? PLAN_WORDS.yesTakeOutOfThePlan({ title: device.title })
            : PLAN_WORDS.takeItOutOfThePlan
        }
        onPress={() => (sure ? takeOut() : setSure(true))}
      />
    </>
  );
}

function nameIssueOf(plan: Plan, device: DeviceInfo, text: string): Issue | undefined {
  const read = parseHostName(text);
  if (!read.ok) return read.error;
  const holder = plan.devices.find((one) => one.name === text && one.id !== device.id);
  return holder && { code: 'name.taken', where: text, facts: { holder: holder.title } };
}

function addressIssueOf(plan: Plan, at: InterfaceView, text: string): Issue | undefined {
  const address = parseIpv4(text);
  if (!address.ok) return address.error;
  const subnet = findSubnet(plan, at.subnetId);
  return subnet && checkAddress(plan, subnet, address.value, at.id)[0];
}
