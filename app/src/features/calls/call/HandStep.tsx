import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import type { EvidenceView, FieldTaskView } from '@ipsonomo/core/api';
import { evidenceWords } from '@ipsonomo/language';
import { pagePortOf } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, reading, useAct, useField, usePlan, usePresent, useWire } from '../../../data';
import { AddressText, Card, Notice, Refusals, Row, timeOf, Words } from '../../../parts';
import { DeviceSwitches } from '../../switches';
import { StrangerLine, SweepButton, whoIsThere } from '../../wire';
import { agoWords, issuesOf } from '../../words';
import { BindStep } from './BindStep';
import { Bound } from './Bound';
import { CardFileOf } from './CardFileOf';
import { CallPage, type Call } from './CallPage';
import { factoryOf } from './factory';
import { GuideSteps } from './GuideSteps';
import { LaptopCard } from './LaptopCard';
import { OpenPage } from './OpenPage';
import { ReadOffCard } from './ReadOffCard';
import { Typed } from './Typed';

/**
 * A device that is given its address by hand: on its page, its keypad, with its maker's tool, a card, by its
 * controller. It is looked for where it was, and followed to where it is planned.
 */
export function HandStep({ call }: { readonly call: Call }) {
  const { at, job, device, kind } = call;
  const field = useField();
  const follow = useAct(acts.follow, { job, interface: at.id });
  const task = field?.tasks.find((one) => one.kind === 'follow' && one.interfaceId === at.id);
  const present = usePresent();
  // Where its MAC was seen last counts more than where it should be as it left its maker.
  const seen = present.findLast(({ mac }) => mac === at.mac)?.address;
  const before = seen !== undefined && seen !== at.address ? seen : factoryOf(call);
  const hasPage = device.way === 'web-page' && kind !== undefined && pagePortOf(kind) !== undefined;
  const look = (
    <Button
      size="lg"
      title={before ? CALL_WORDS.lookForItAt({ before }) : CALL_WORDS.lookForIt}
      loading={follow.isPending}
      onPress={() => follow.mutate()}
    />
  );
  const [chosen, setChosen] = useState<string>();
  // A used one may be anywhere: whichever it is, its label shows it.
  if (chosen !== undefined && at.mac === null)
    return <BindStep call={call} there={chosen} onBack={() => setChosen(undefined)} />;
  const isFound = task?.phase === 'at-old' || task?.phase === 'at-both';
  return (
    <CallPage
      call={call}
      action={
        !task ? look : hasPage && isFound ? <OpenPage call={call} /> : <Following task={task} />
      }
    >
      <Refusals issues={issuesOf(follow.error)} />
      <Where call={call} task={task} before={before} isFactory={before === factoryOf(call)} />
      <Typed call={call} />
      <CardFileOf call={call} />
      <GuideSteps kind={kind} way={device.way} />
      <DeviceSwitches plan={call.plan} deviceId={device.id} interfaceId={at.id} />
      <LaptopCard call={call} beside={before ?? at.address} />
      <FoundElsewhere call={call} onChoose={setChosen} />
      <ReadOffCard call={call} from={hasPage ? 'page' : 'display'} />
      <Bound call={call} />
    </CallPage>
  );
}

const FOLLOWING: Readonly<Record<string, string>> = {
  looking: CALL_WORDS.lookingWhoAnswers,
  several: CALL_WORDS.waitingUntilOnlyOneAnswers,
  'at-old': CALL_WORDS.waitingToSeeItAtIts,
  nowhere: CALL_WORDS.waitingToSeeIt,
  'at-both': CALL_WORDS.waitingUntilItHasLeftThe,
  'at-new': CALL_WORDS.itIsThere,
};

const Following = ({ task }: { readonly task: FieldTaskView }) => (
  <Words size="strong" align="center">
    {FOLLOWING[task.phase] ?? CALL_WORDS.followingIt}
  </Words>
);

/** Devices the plan does not know, wherever they are: one of them may be the used one. */
function FoundElsewhere({
  call,
  onChoose,
}: {
  readonly call: Call;
  readonly onChoose: (mac: string) => void;
}) {
  const { view } = usePlan(call.job);
  const field = useField();
  const present = usePresent();
  if (!view || call.at.mac !== null) return null;
  const { strangers } = whoIsThere(view, present, field);
  return (
    <View style={{ gap: 6 }}>
      <Words size="strong" heading={2}>
        {CALL_WORDS.notWhereItShouldBe}
      </Words>
      <SweepButton job={call.job} />
      {strangers.map((one) => (
        <Row
          key={one.mac}
          label={CALL_WORDS.holdTheLabelAgainst({ mac: one.mac })}
          onPress={() => onChoose(one.mac)}
        >
          <StrangerLine stranger={one} />
        </Row>
      ))}
    </View>
  );
}

const SEVERAL = CALL_WORDS.theyAllLeftTheirMakersWith;
const NOBODY = CALL_WORDS.lookAtItsPowerAndIts;
const STILL = CALL_WORDS.itMayHaveASecondAddress;

interface WhereProps {
  readonly call: Call;
  readonly task: FieldTaskView | undefined;
  readonly before: string | undefined;
  readonly isFactory: boolean;
}

/** Where it was, who answers there now, and where it has to be. */
function Where({ call, task, before, isFactory }: WhereProps) {
  const { now } = useWire();
  const all =
    useQuery(reading(acts.readEvidence, { job: call.job, interface: call.at.id })).data ?? [];
  const last = (...kinds: readonly EvidenceView['kind'][]) =>
    all.find((one) => kinds.includes(one.kind));
  const found = last('found-before');
  const taken = last('address-taken', 'has-address');
  const still = last('still-at-old', 'left-old');
  return (
    <View style={{ gap: 12 }}>
      {before ? (
        <Card>
          <Words size="second" tone="second">
            {isFactory ? CALL_WORDS.asItLeftItsMakerIt : CALL_WORDS.itWasSeenAt}
          </Words>
          <AddressText size="call" address={before} />
          <Words size="second">
            {found
              ? `${evidenceWords(found)}, ${agoWords(found.at, now)}`
              : CALL_WORDS.nobodyHasLookedThereYet}
          </Words>
        </Card>
      ) : null}
      {task?.phase === 'several' ? (
        <Notice tone="brick" title={CALL_WORDS.moreThanOneAnswersThere}>
          {SEVERAL}
        </Notice>
      ) : null}
      {task?.phase === 'nowhere' && before ? (
        <Notice tone="ochre" title={CALL_WORDS.nothingAnswersAt({ before })}>
          {NOBODY}
        </Notice>
      ) : null}
      {still?.kind === 'still-at-old' && task ? (
        <Notice tone="ochre" title={CALL_WORDS.itAnswersAtBothAddresses}>
          {STILL}
        </Notice>
      ) : null}
      {taken?.kind === 'address-taken' ? (
        <Notice tone="brick" title={CALL_WORDS.isTaken({ address: call.at.address })}>
          {CALL_WORDS.findThatDeviceBeforeYouGive({
            taken: evidenceWords(taken),
            at: timeOf(taken.at),
          })}
        </Notice>
      ) : null}
    </View>
  );
}
