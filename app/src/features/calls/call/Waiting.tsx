import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { findSubnet, notHeardCauses, patienceFor, type NotHeardCause } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { useField, useTraffic } from '../../../data';
import { Notice, Row, Words } from '../../../parts';
import { DeviceSwitches } from '../../switches';
import { CallPage, type Call } from './CallPage';
import { SetBack } from './SetBack';

interface Props {
  readonly call: Call;
  /** Back to those that are heard, where there are any. */
  readonly onBack?: () => void;
}

/** It has not asked yet: how long such a device takes, and then what to look at, in order. */
export function Waiting({ call, onBack }: Props) {
  const { kind, device, at, plan } = call;
  const field = useField();
  const socket = useTraffic()?.socket;
  const heard = [...(socket?.subnets ?? [])].sort((a, b) => b.count - a.count);
  const causes = notHeardCauses(
    {
      link: field?.link ?? 'up',
      isWireAlive: socket?.heardAt !== null,
      heardSubnets: heard.map(({ subnetId }) => subnetId),
      subnetId: at.subnetId,
    },
    device,
    kind,
  );
  const nameOf = (id: string) => findSubnet(plan, id)?.name ?? id;
  return (
    <CallPage call={call}>
      <Notice tone="plain" title={CALL_WORDS.notHeardYet}>
        {CALL_WORDS.powerItOnOrOffAnd({ kind: kind ? patienceFor(kind) : 60 })}
      </Notice>
      <View role="list" aria-label={CALL_WORDS.whyItMayNotBeHeard}>
        {causes.map((cause, index) => {
          const [first, second] = causeWords(cause, nameOf, nameOf(at.subnetId));
          return (
            <Row key={cause.code} isItem>
              <View style={{ flexDirection: 'row', gap: 16 }}>
                <Words size="strong" tone="second">
                  {index + 1}
                </Words>
                <View style={{ flex: 1 }}>
                  <Words size="strong">{first}</Words>
                  <Words size="second" tone="second">
                    {second}
                  </Words>
                </View>
              </View>
            </Row>
          );
        })}
      </View>
      {causes.some(({ code }) => code === 'keeps-address') ? <SetBack call={call} /> : null}
      {onBack ? (
        <Button type="outline" title={CALL_WORDS.lookAtWhatIsHeard} onPress={onBack} />
      ) : null}
      {causes.some(({ code }) => code === 'switches') ? (
        <DeviceSwitches plan={plan} deviceId={device.id} interfaceId={at.id} />
      ) : null}
    </CallPage>
  );
}

function causeWords(
  cause: NotHeardCause,
  nameOf: (subnetId: string) => string,
  planned: string,
): readonly [string, string] {
  switch (cause.code) {
    case 'no-link':
      return [CALL_WORDS.theLaptopHasNoLink, CALL_WORDS.lookAtTheCableAndThe];
    case 'dead-wire':
      return [CALL_WORDS.notOneFrameWasHeardFrom, CALL_WORDS.theSocketMayBeSwitchedOff];
    case 'other-subnet':
      return [
        CALL_WORDS.whatIsHeardHereIsNot({ subnetId: nameOf(cause.subnetId), planned }),
        CALL_WORDS.plugTheLaptopIntoASocket,
      ];
    case 'its-cable':
      return [CALL_WORDS.hasItsNetworkPlugALamp, CALL_WORDS.noLampItsCableOrThe];
    case 'switches':
      return [CALL_WORDS.doItsSwitchesSayAsk, CALL_WORDS.asDrawnBelowTheyAreRead];
    case 'not-restarted':
      return [
        CALL_WORDS.wasItWithoutPowerSince,
        CALL_WORDS.itPausesLongerAndLongerBetween({ seconds: cause.seconds }),
      ];
    case 'keeps-address':
      return [CALL_WORDS.doesItKeepAnAddressFrom, CALL_WORDS.thenItDoesNotAskSet];
  }
}
