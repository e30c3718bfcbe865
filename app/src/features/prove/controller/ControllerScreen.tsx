import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { JobView } from '@ipsonomo/core/api';
import { correctionsOf, threeWays, type ThreeWays } from '@ipsonomo/core/entered';
import type { Device, Interface, Plan } from '@ipsonomo/core/plan';
import { CONTROLLER_WORDS } from '@ipsonomo/language/screens/controller';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { useJob, type Job } from '../../../data';
import { Card, Notice, Page, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { Corrections } from './Corrections';
import { Pasting } from './Pasting';
import { ReadRegister } from './ReadRegister';
import { Sides } from './Sides';
import { ThreeWaysTable } from './ThreeWaysTable';

/** Three columns: as planned, as entered in the controller, as found. */
export function ControllerScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const [isPasting, setPasting] = useState(false);
  const all = job ? rowsOf(job.plan, job.view) : [];
  const said = all.filter(({ device }) => device.entered !== undefined);
  const bad = all.filter(({ rows }) => rows.some(({ verdict }) => verdict === 'differs'));
  const good = said.filter((one) => !bad.includes(one));
  return (
    <Page
      maxWidth={1100}
      action={
        isPasting ? null : (
          <Button
            size="lg"
            title={CONTROLLER_WORDS.pasteFromTheController}
            onPress={() => setPasting(true)}
          />
        )
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {PROVE_WORDS.asTheControllerHasIt}
        </Words>
        <Words tone="second">{CONTROLLER_WORDS.eachValueAsPlannedAsEntered}</Words>
      </View>
      <Refusals issues={issuesOf(error)} />
      {job && isPasting ? (
        <Pasting {...{ id, plan: job.plan, doc: job.now.doc }} onDone={() => setPasting(false)} />
      ) : null}
      {job && !isPasting && said.length === 0 ? (
        <Notice tone="plain" title={CONTROLLER_WORDS.nothingWasEnteredYet}>
          {CONTROLLER_WORDS.copyTheListOfDevicesIn}
        </Notice>
      ) : null}
      {job && !isPasting ? (
        <>
          <Corrections
            plan={job.plan}
            entries={bad.map(({ device, rows }) => ({ device, corrections: correctionsOf(rows) }))}
          />
          <Group id={id} job={job} title={CONTROLLER_WORDS.differs} entries={bad} />
          <Group id={id} job={job} title={CONTROLLER_WORDS.theSame} entries={good} />
        </>
      ) : null}
      {job && !isPasting ? <ReadRegister job={id} plan={job.plan} /> : null}
    </Page>
  );
}

const hasAnything = ({ entered, connection, modules }: Device): boolean =>
  entered !== undefined || connection !== undefined || modules.length > 0;

interface Entry {
  readonly device: Device;
  readonly at: Interface;
  readonly rows: readonly ThreeWays[];
}

function rowsOf(plan: Plan, view: JobView): readonly Entry[] {
  const checks = new Map(
    view.devices.flatMap(({ interfaces }) =>
      interfaces.map((at) => [at.id, at.check ?? undefined] as const),
    ),
  );
  return plan.devices.flatMap((device) => {
    const [at] = device.interfaces;
    if (!at || !hasAnything(device)) return [];
    const rows = threeWays(plan, device, at, checks.get(at.id));
    return [{ device, at, rows }];
  });
}

function Group({
  id,
  job,
  title,
  entries,
}: {
  readonly id: string;
  readonly job: Pick<Job, 'plan' | 'doc'>;
  readonly title: string;
  readonly entries: readonly Entry[];
}) {
  const router = useRouter();
  if (entries.length === 0) return null;
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {title} · {entries.length}
      </Words>
      {entries.map(({ device, at, rows }) => (
        <Card key={at.id}>
          <Words size="strong">{device.title}</Words>
          <ThreeWaysTable rows={rows} title={device.title} />
          <Sides job={id} plan={job.plan} doc={job.doc} {...{ device, at, rows }} />
          <Button
            type="clear"
            containerStyle={{ alignSelf: 'flex-start' }}
            title={CONTROLLER_WORDS.changeItInThePlan}
            accessibilityLabel={CONTROLLER_WORDS.changeItInThePlan2({ title: device.title })}
            onPress={() => router.navigate(`/job/${id}/thing/device/${device.id}`)}
          />
        </Card>
      ))}
    </View>
  );
}
