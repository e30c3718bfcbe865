import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import {
  cureEdits,
  cureWords,
  evidenceWords,
  rackPathView,
  turnLineOf,
  verdictWords,
  type RackPathView,
} from '@ipsonomo/language';
import { type Plan } from '@ipsonomo/core/plan';
import { findCure, planAsFound, predict, PreparedNet, routeNetOf } from '@ipsonomo/core/routes';
import { acts, type Job, reading, useAct, useEdit, useJob } from '../../data';
import { Card, Notice, Page, Refusals, ThereAndBackLine, timeOf, Toggle, Words } from '../../parts';
import { issuesOf, plural } from '../words';
import { settingsFound } from './settings-found';
import { WalkCard } from './WalkCard';

interface Props {
  readonly job: string;
  /** Of the device that asks. */
  readonly from: string;
  /** Of the interface that is asked. */
  readonly to: string;
}

/** One question and its reply, hop by hop as the plan has it, why it ends too early, and what cures that. */
export function ThereAndBackScreen({ job: id, from, to }: Props) {
  const { job, error } = useJob(id);
  const planned = job?.plan;
  const found = useMemo(() => job && settingsFound(job.plan, job.view), [job]);
  const [isAsFound, setAsFound] = useState(false);
  const plan = useMemo(
    () => (planned && found && isAsFound ? planAsFound(planned, found) : planned),
    [planned, found, isAsFound],
  );
  const told = useMemo(() => plan && walkedOf(plan, from, to), [plan, from, to]);
  const edit = useEdit(id);
  if (!job || !told)
    return (
      <Page>
        <Words size="title" heading={1}>
          There and back
        </Words>
        <Refusals issues={issuesOf(error)} />
        {job ? (
          <Notice tone="plain" title="One of the two is not in the plan any more">
            Choose another pair.
          </Notice>
        ) : null}
      </Page>
    );
  const { titles, answer, line, cure, rack } = told;
  const { title, text } = verdictWords(answer.verdict);
  const { works } = answer.verdict;
  return (
    <Page
      action={
        cure && !isAsFound ? (
          <CureButton job={job} cure={cure} edit={edit} about={titles.join(' → ')} />
        ) : undefined
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="second" tone="second">
          {isAsFound ? 'there and back, as the devices are set' : 'there and back, by the plan'}
        </Words>
        <Words size="title" heading={1}>
          {titles.join(' → ')}
        </Words>
      </View>
      {found && found.size > 0 ? (
        <View style={{ gap: 6 }}>
          <Words size="second">
            {`${plural(found.size, 'device')} told another mask or gateway than planned.`}
          </Words>
          <Toggle title="As they are set" isOn={isAsFound} onPress={() => setAsFound(!isAsFound)} />
        </View>
      ) : null}
      <Card>
        <ThereAndBackLine line={line} />
      </Card>
      <Notice tone={works ? (text === '' ? 'moss' : 'ochre') : 'brick'} title={title}>
        {text || 'The question arrives, and the reply comes back to who asked.'}
      </Notice>
      <Refusals issues={issuesOf(edit.error)} />
      {rack ? <RackPath {...{ rack, from, to }} job={id} /> : null}
      {!works && isAsFound ? (
        <Words size="second" tone="second">
          Put the device right on its call, or let the plan take what was found under Prove.
        </Words>
      ) : null}
      {!works && !cure && !rack ? (
        <Words size="second" tone="second">
          No single change of the plan was found that cures it: look at the sentence above.
        </Words>
      ) : null}
      <WalkCard key={to} {...{ job: id, plan: plan ?? job.plan, to, nearest: told.nearest }} />
    </Page>
  );
}

function walkedOf(plan: Plan, from: string, to: string) {
  const net = routeNetOf(plan);
  const prepared = new PreparedNet(net);
  const asker = prepared.host(from);
  const target = prepared.hosts.find(({ host }) => host.ports.some(({ id }) => id === to));
  const port = target?.host.ports.find(({ id }) => id === to);
  if (!asker || !target || !port) return undefined;
  const answer = predict(prepared, { from: asker, to: port.address, meant: target });
  const { id, title } = target.host;
  return {
    titles: [asker.host.title, title],
    answer,
    line: turnLineOf(answer, { id, title, port }),
    nearest: asker.host.ports[0]?.link,
    rack: answer.verdict.works ? undefined : rackPathView(plan, from, to),
    cure: findCure(net, { from, to: port.address, meant: id }),
  };
}

/** IP does not go through a rack; the automation protocol does. */
function RackPath({ rack, job, from, to }: Props & { readonly rack: RackPathView }) {
  const ask = useAct(acts.askPath, { job, interface: to });
  const evidence = useQuery(reading(acts.readEvidence, { job, interface: to })).data ?? [];
  const last = evidence.find((one) => one.kind === 'path-asked');
  const { hops, numbers, bytes } = rack;
  return (
    <Card>
      <Words size="strong" heading={2}>
        Route path of the automation protocol
      </Words>
      <Words size="second" tone="second">
        {`It begins after ${rack.from}.`}
      </Words>
      {hops.map(({ step, leadsTo }) => (
        <Words key={step + leadsTo} size="second">
          {`${step}: ${leadsTo}`}
        </Words>
      ))}
      <Words size="strong">{numbers}</Words>
      <Words size="second">{bytes}</Words>
      {last ? (
        <Words size="second" tone={last.facts.how === 'reached' ? 'moss' : 'brick'}>
          {last.facts.how === 'reached' ? '✓ ' : '× '}
          {evidenceWords(last)} · {timeOf(last.at)}
        </Words>
      ) : null}
      <Refusals issues={issuesOf(ask.error)} />
      <Button
        type="outline"
        title="Ask along it who is there"
        loading={ask.isPending}
        onPress={() => ask.mutate({ from })}
      />
    </Card>
  );
}

interface CureProps {
  readonly job: Job;
  readonly cure: NonNullable<ReturnType<typeof findCure>>;
  readonly edit: ReturnType<typeof useEdit>;
  readonly about: string;
}

/** The change that was tried in the plan and works there, or gets further. */
function CureButton({ job, cure: { cure, after }, edit, about }: CureProps) {
  const edits = cureEdits(job.plan, job.doc, cure);
  if (!edits) return null;
  const words = cureWords(job.plan, cure);
  return (
    <>
      <Button
        size="lg"
        title={words}
        loading={edit.isPending}
        onPress={() => edit.mutate({ edits, why: `${words}, for ${about}` })}
      />
      {after.verdict.works ? null : (
        <Words size="caption" tone="second" align="center">
          It gets further then; something else stands in its way.
        </Words>
      )}
    </>
  );
}
