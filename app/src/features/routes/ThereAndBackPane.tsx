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
import { ROUTES_WORDS } from '@ipsonomo/language/screens/routes';
import { acts, type Job, reading, useAct, useEdit, useJob } from '../../data';
import { Card, Notice, Page, Refusals, ThereAndBackLine, timeOf, Toggle, Words } from '../../parts';
import { issuesOf } from '../words';
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
export function ThereAndBackPane({ job: id, from, to }: Props) {
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
          {ROUTES_WORDS.thereAndBack}
        </Words>
        <Refusals issues={issuesOf(error)} />
        {job ? (
          <Notice tone="plain" title={ROUTES_WORDS.oneOfTheTwoIsNot}>
            {ROUTES_WORDS.chooseAnotherPair}
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
          {isAsFound ? ROUTES_WORDS.thereAndBackAsTheDevices : ROUTES_WORDS.thereAndBackByThePlan}
        </Words>
        <Words size="title" heading={1}>
          {titles.join(' → ')}
        </Words>
      </View>
      {found && found.size > 0 ? (
        <View style={{ gap: 6 }}>
          <Words size="second">
            {ROUTES_WORDS.deviceToldAnotherMaskOrGateway({ found: found.size })}
          </Words>
          <Toggle
            title={ROUTES_WORDS.asTheyAreSet}
            isOn={isAsFound}
            onPress={() => setAsFound(!isAsFound)}
          />
        </View>
      ) : null}
      <Card>
        <ThereAndBackLine line={line} />
      </Card>
      <Notice tone={works ? (text === '' ? 'moss' : 'ochre') : 'brick'} title={title}>
        {text || ROUTES_WORDS.theQuestionArrivesAndTheReply}
      </Notice>
      <Refusals issues={issuesOf(edit.error)} />
      {rack ? <RackPath {...{ rack, from, to }} job={id} /> : null}
      {!works && isAsFound ? (
        <Words size="second" tone="second">
          {ROUTES_WORDS.putTheDeviceRightOnIts}
        </Words>
      ) : null}
      {!works && !cure && !rack ? (
        <Words size="second" tone="second">
          {ROUTES_WORDS.noSingleChangeOfThePlan}
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
        {ROUTES_WORDS.routePathOfTheAutomationProtocol}
      </Words>
      <Words size="second" tone="second">
        {ROUTES_WORDS.itBeginsAfter({ from: rack.from })}
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
        title={ROUTES_WORDS.askAlongItWhoIsThere}
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
        onPress={() => edit.mutate({ edits, why: ROUTES_WORDS.for({ words, about }) })}
      />
      {after.verdict.works ? null : (
        <Words size="caption" tone="second" align="center">
          {ROUTES_WORDS.itGetsFurtherThenSomethingElse}
        </Words>
      )}
    </>
  );
}
