import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { portText } from '@ipsonomo/core/answering';
import type { HeardView } from '@ipsonomo/core/api';
import { evidenceWords } from '@ipsonomo/language';
import { dhcpNameOf, findDevice, isOneOf } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, reading, useEdit, useHeard, useWire } from '../../../data';
import { Card, MacText, Notice, Refusals, Row, Words } from '../../../parts';
import { HeardLine } from '../assign/HeardLine';
import { DeviceSwitches } from '../../switches';
import { agoWords, issuesOf } from '../../words';
import { AnswerAction, useAnswering } from './Answering';
import { CallPage, type Call } from './CallPage';
import { Lend } from './Lend';

/** A device known by its name or its switch port: whoever asks under it is answered, with no MAC bound. */
export function KeyedStep({ call }: { readonly call: Call }) {
  const { at, job, device } = call;
  const answering = useAnswering(job);
  const planned = findDevice(call.plan, device.id);
  const port = planned?.interfaces.find((one) => one.id === at.id)?.port;
  const byName = device.way === 'dhcp-name';
  return (
    <CallPage
      call={call}
      action={<AnswerAction answering={answering} disabled={!byName && port === undefined} />}
    >
      <Refusals issues={issuesOf(answering.error)} />
      {at.trouble ? (
        <Notice tone="brick" title={CALL_WORDS.itIsNotAnswered}>
          {`${evidenceWords(at.trouble)}. ${TROUBLE_CURE}`}
        </Notice>
      ) : null}
      <Card>
        <Words size="second" tone="second">
          {byName ? CALL_WORDS.itHasToAskUnderThe : CALL_WORDS.itHasToAskThroughThe}
        </Words>
        <Words size="device">
          {byName
            ? planned
              ? dhcpNameOf(planned)
              : device.name
            : port
              ? portText(port)
              : CALL_WORDS.notKnownYet}
        </Words>
        <LastAsked call={call} />
      </Card>
      {byName ? (
        <DeviceSwitches plan={call.plan} deviceId={device.id} interfaceId={at.id} />
      ) : (
        <Ports call={call} />
      )}
      <Notice tone="plain">
        {byName ? CALL_WORDS.comparedLetterByLetterAsIt : CALL_WORDS.theSwitchHasToAddRelay}
      </Notice>
      <Lend call={call} />
    </CallPage>
  );
}

const TROUBLE_CURE = CALL_WORDS.twoDevicesCannotShareAName;

/** Who asked under it, or asks otherwise than planned. */
function LastAsked({ call }: { readonly call: Call }) {
  const { at } = call;
  const { now } = useWire();
  const all = useQuery(reading(acts.readEvidence, { job: call.job, interface: at.id })).data ?? [];
  const last = all.find((one) => isOneOf(['asked', 'asked-by-name', 'asked-by-port'], one));
  if (!last) return <Words size="second">{CALL_WORDS.nobodyHasAskedSoYet}</Words>;
  const otherwise =
    last.kind === 'asked' && (last.facts.otherName ?? last.facts.otherPort) !== undefined;
  return (
    <View>
      {at.askedBy ? <MacText mac={at.askedBy} /> : null}
      <Words size="second" tone={otherwise ? 'brick' : 'second'}>
        {`${evidenceWords(last)}, ${agoWords(last.at, now)}`}
      </Words>
    </View>
  );
}

const portKey = ({ port }: HeardView): string => `${port?.circuit}/${port?.remote}`;

/** Ports that requests came in at: the one this device is plugged into is kept in the plan. */
function Ports({ call }: { readonly call: Call }) {
  const { job, at } = call;
  const { now } = useWire();
  const edit = useEdit(job);
  const heard = useHeard().filter(({ port }) => port !== null);
  const planned = findDevice(call.plan, call.device.id);
  const from = planned?.interfaces.find((one) => one.id === at.id)?.port ?? null;
  const keep = (client: HeardView) =>
    edit.mutate({
      edits: [{ op: 'set', type: 'interface', id: at.id, field: 'port', from, to: client.port }],
      why: CALL_WORDS.isPluggedIntoItsSwitchPort({ title: call.device.title }),
    });
  if (heard.length === 0)
    return (
      <Words size="second" tone="second">
        {CALL_WORDS.noRequestWithRelayInformationWas}
      </Words>
    );
  return (
    <View>
      <Refusals issues={issuesOf(edit.error)} />
      <Words size="strong" heading={2}>
        {CALL_WORDS.heardThroughPorts}
      </Words>
      {heard.map((client) => (
        <Row
          key={`${client.mac} ${portKey(client)}`}
          label={CALL_WORDS.keepThePortOf({ mac: client.mac })}
          onPress={() => keep(client)}
        >
          <HeardLine
            {...{ heard: client, now }}
            note={
              client.port ? CALL_WORDS.throughPressToKeepIt({ port: portText(client.port) }) : ''
            }
          />
        </Row>
      ))}
    </View>
  );
}
