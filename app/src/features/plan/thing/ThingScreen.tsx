import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { thingWords } from '@ipsonomo/language';
import type { Issue } from '@ipsonomo/core/net';
import {
  changeOf,
  findDoc,
  isObject,
  kindsOf,
  readEdits,
  readThing,
  shapeOf,
  THING_TYPES,
  type JsonObject,
  type Plan,
  type PlanDoc,
  type ThingDoc,
  type ThingType,
} from '@ipsonomo/core/plan';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { THING_WORDS } from '@ipsonomo/language/screens/thing';
import { useEdit, useJob } from '../../../data';
import { Card, Page, Refusals, useKept, Words } from '../../../parts';
import { ConflictPane, conflictsOf } from '../conflict/ConflictPane';
import { issuesOf } from '../../words';
import { DeviceForm } from './DeviceForm';
import { DeviceParts } from './DeviceParts';
import { formOf } from './schema';
import { Fields, type Names } from './ValueForm';

interface Props {
  readonly job: string;
  readonly type: string;
  readonly id: string;
}

/** Any thing of the plan with all of its fields. */
export function ThingScreen({ job: id, type: word, id: thingId }: Props) {
  const { job, error } = useJob(id);
  const type = THING_TYPES.find((one) => one === word);
  const thing = job && type && findDoc(job.doc, type, thingId);
  if (!job || !type || !thing)
    return (
      <Page>
        <Refusals issues={issuesOf(error)} />
        {job ? <Words>{THING_WORDS.thisIsNoLongerInThe}</Words> : null}
      </Page>
    );
  return <Form {...{ id, type, thing }} plan={job.plan} doc={job.doc} />;
}

/** What stood there when the form was opened, and what is typed in it. */
interface Opened {
  readonly opened: ThingDoc;
  readonly typed: JsonObject;
}

interface FormProps {
  readonly id: string;
  readonly type: ThingType;
  readonly thing: ThingDoc;
  readonly plan: Plan;
  readonly doc: PlanDoc;
}

function Form({ id, type, thing, plan, doc }: FormProps) {
  const router = useRouter();
  const edit = useEdit(id);
  const [{ opened, typed }, keep, forget] = useKept<Opened>(`thing ${type} ${thing.id}`, {
    ...{ opened: thing, typed: thing },
  });
  const setTyped = (next: JsonObject) => keep({ opened, typed: next });
  const names = useMemo(() => namesOf(plan), [plan]);
  const form = formOf(shapeOf(type).schema);
  const { wanted, issues } = useMemo(() => read(type, typed), [type, typed]);
  const edits = wanted ? changeOf(type, opened, wanted) : [];
  const conflicts = conflictsOf(edit.error);
  const title = thingWords(type, thing.id, doc);
  const leave = () => {
    forget();
    router.back();
  };
  const write = (all: typeof edits) =>
    edit.mutate({ edits: all, why: COMMON_WORDS.changed({ title }) }, { onSuccess: leave });
  const remove = () =>
    edit.mutate(
      { edits: [{ op: 'remove', type, thing }], why: THING_WORDS.removed({ title }) },
      { onSuccess: leave },
    );
  return (
    <Page
      action={
        <Button
          size="lg"
          title={PLAN_WORDS.save}
          disabled={edits.length === 0 || issues.length > 0}
          loading={edit.isPending}
          onPress={() => write(edits)}
        />
      }
    >
      <Words size="title" heading={1}>
        {title}
      </Words>
      {conflicts.length > 0 ? (
        <Card strong>
          <ConflictPane
            {...{ doc, conflicts }}
            edits={edit.variables?.edits ?? []}
            isBusy={edit.isPending}
            onSettle={write}
            onLeave={leave}
          />
        </Card>
      ) : null}
      {type === 'device' ? <DeviceParts {...{ id, plan, doc }} deviceId={thing.id} /> : null}
      <Refusals issues={issues} />
      {type === 'device' ? (
        <DeviceForm {...{ plan, names }} value={typed} onChange={setTyped} />
      ) : form.kind === 'object' ? (
        <Fields
          names={names}
          value={typed}
          fields={form.fields.filter(([name]) => name !== 'id')}
          onChange={(next) => (isObject(next) ? setTyped(next) : undefined)}
        />
      ) : null}
      {type === 'interface' || type === 'cable' ? (
        <Button type="outline" title={PLAN_WORDS.takeItOutOfThePlan} onPress={remove} />
      ) : null}
      <Refusals issues={issuesOf(conflicts.length > 0 ? undefined : edit.error)} />
    </Page>
  );
}

function read(type: ThingType, typed: JsonObject) {
  const issues: Issue[] = [];
  const wanted = readThing(type, typed, '', issues);
  const edits = wanted ? readEdits([{ op: 'add', type, thing: wanted }]) : undefined;
  if (edits && !edits.ok) issues.push(...edits.error);
  return { wanted, issues };
}

/** What can be named by its id. */
function namesOf(plan: Plan): Names {
  const devices = plan.devices.map((one) => ({
    value: one.id,
    title: one.title,
    detail: one.name,
  }));
  return {
    subnetId: plan.subnets.map((one) => ({ value: one.id, title: one.name })),
    realmId: plan.realms.map((one) => ({ value: one.id, title: one.name })),
    kindId: kindsOf(plan).map((one) => ({ value: one.id, title: one.name, detail: one.maker })),
    deviceId: devices,
    controllerId: devices,
  };
}
