import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { findSubnet, notHeardCauses, patienceFor, type NotHeardCause } from '@ipsonomo/core/plan';
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
      <Notice tone="plain" title="Not heard yet">
        {`Power it on, or off and on. Such a device asks within ${kind ? patienceFor(kind) : 60} s. If it does not, look at these in order:`}
      </Notice>
      <View role="list" aria-label="Why it may not be heard">
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
      {onBack ? <Button type="outline" title="Look at what is heard" onPress={onBack} /> : null}
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
      return ['The laptop has no link', 'Look at the cable and the lamps at both its ends.'];
    case 'dead-wire':
      return [
        'Not one frame was heard from anybody',
        'The socket may be switched off, or in a network of its own. Try the next one.',
      ];
    case 'other-subnet':
      return [
        `What is heard here is ${nameOf(cause.subnetId)}, not ${planned}`,
        'Plug the laptop into a socket of its own network.',
      ];
    case 'its-cable':
      return [
        'Has its network plug a lamp?',
        'No lamp: its cable, or the socket at the other end.',
      ];
    case 'switches':
      return [
        'Do its switches say "ask"?',
        'As drawn below. They are read only when it gets power.',
      ];
    case 'not-restarted':
      return [
        'Was it without power since?',
        `It pauses longer and longer between two requests; after power off and on it begins anew, within ${cause.seconds} s.`,
      ];
    case 'keeps-address':
      return [
        'Does it keep an address from before?',
        'Then it does not ask. Set it back the way of its kind, or find it by its old address.',
      ];
  }
}
