import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import {
  ENTERED_WORDS,
  threeWays,
  type Device,
  type JobView,
  type Plan,
  type ThreeWays,
} from '@ipsonomo/core';
import { useJob } from '../../data';
import { Card, Notice, Page, Refusals, Words } from '../../parts';
import { useWide } from '../../theme';
import { issuesOf } from '../words';
import { Pasting } from './Pasting';
import { ReadRegister } from './ReadRegister';

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
          <Button size="lg" title="Paste from the controller" onPress={() => setPasting(true)} />
        )
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          As the controller has it
        </Words>
        <Words tone="second">
          Each value as planned, as entered in the controller and as found, side by side.
        </Words>
      </View>
      <Refusals issues={issuesOf(error)} />
      {job && isPasting ? (
        <Pasting {...{ id, plan: job.plan, doc: job.now.doc }} onDone={() => setPasting(false)} />
      ) : null}
      {job && !isPasting && said.length === 0 ? (
        <Notice tone="plain" title="Nothing was entered yet">
          Copy the list of devices in the controller’s project as a table, choose a file of it, or
          type it: name, address, revision, size in, size out, interval.
        </Notice>
      ) : null}
      <Group id={id} title="Differs" entries={bad} />
      <Group id={id} title="The same" entries={good} />
      {job && !isPasting ? <ReadRegister job={id} plan={job.plan} /> : null}
    </Page>
  );
}

const hasAnything = ({ entered, connection, modules }: Device): boolean =>
  entered !== undefined || connection !== undefined || modules.length > 0;

interface Entry {
  readonly device: Device;
  readonly interfaceId: string;
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
    return [{ device, interfaceId: at.id, rows }];
  });
}

function Group({
  id,
  title,
  entries,
}: {
  readonly id: string;
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
      {entries.map(({ device, interfaceId, rows }) => (
        <Card key={interfaceId}>
          <Words size="strong">{device.title}</Words>
          <Table rows={rows} title={device.title} />
          <Button
            type="clear"
            containerStyle={{ alignSelf: 'flex-start' }}
            title="Change it in the plan"
            accessibilityLabel={`Change it in the plan: ${device.title}`}
            onPress={() => router.navigate(`/job/${id}/thing/device/${device.id}`)}
          />
        </Card>
      ))}
    </View>
  );
}

const HEADS = ['', 'planned', 'entered', 'found'] as const;

function Table({ rows, title }: { readonly rows: readonly ThreeWays[]; readonly title: string }) {
  const wide = useWide();
  const flex = (at: number) => ({ flex: at === 0 ? (wide ? 1 : 1.1) : 2 });
  return (
    <View role="table" aria-label={`${title}: planned, entered, found`} style={{ gap: 6 }}>
      <View role="row" style={{ flexDirection: 'row', gap: 8 }}>
        {HEADS.map((head, at) => (
          <View role="columnheader" key={head} style={flex(at)}>
            <Words size="caption" tone="second">
              {head}
            </Words>
          </View>
        ))}
      </View>
      {rows.map(({ value, planned, entered, found, verdict }) => {
        const tone = verdict === 'differs' ? 'brick' : verdict === 'same' ? 'moss' : 'second';
        const mark = verdict === 'differs' ? '× ' : verdict === 'same' ? '✓ ' : '';
        return (
          <View role="row" key={value} style={{ flexDirection: 'row', gap: 8 }}>
            <View role="cell" style={flex(0)}>
              <Words size="caption" tone={tone}>
                {mark}
                {ENTERED_WORDS[value]}
              </Words>
            </View>
            {[planned, entered, found].map((cell, at) => (
              <View role="cell" key={HEADS[at + 1]} style={flex(at + 1)}>
                <Words size="second" tone={verdict === 'differs' ? 'brick' : 'ink'}>
                  {cell || '–'}
                </Words>
              </View>
            ))}
          </View>
        );
      })}
    </View>
  );
}
