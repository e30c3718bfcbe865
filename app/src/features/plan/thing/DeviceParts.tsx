import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { formatIpv4 } from '@ipsonomo/core/net';
import {
  findDevice,
  findSubnet,
  avoidedFor,
  docOf,
  findKind,
  nextFree,
  toInterface,
  type Edit,
  type Plan,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import { THING_WORDS } from '@ipsonomo/language/screens/thing';
import { newId, useEdit } from '../../../data';
import { Refusals, Row, Words } from '../../../parts';
import { issuesOf } from '../../words';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly deviceId: string;
}

/** The interfaces and cables of a device, each a thing of its own. */
export function DeviceParts({ id, plan, deviceId }: Props) {
  const router = useRouter();
  const edit = useEdit(id);
  const device = findDevice(plan, deviceId);
  if (!device) return null;
  const cables = plan.cables.filter((one) =>
    [one.from.deviceId, one.to.deviceId].includes(deviceId),
  );
  const titleOf = (other: string) => findDevice(plan, other)?.title ?? other;
  const go = (path: string) => router.navigate(`/job/${id}/thing/${path}`);
  const add = (made: Edit | undefined, why: string) =>
    made && edit.mutate({ edits: [made], why }, { onSuccess: () => go(pathOf(made)) });
  return (
    <View>
      {device.interfaces.map((at) => (
        <Row
          key={at.id}
          label={THING_WORDS.interface2({ address: formatIpv4(at.address) })}
          onPress={() => go(`interface/${at.id}`)}
        >
          <Words size="strong">{THING_WORDS.interface({ label: at.label })}</Words>
          <Words size="second" tone="second">
            {formatIpv4(at.address)}, {findSubnet(plan, at.subnetId)?.name ?? THING_WORDS.noSubnet}
          </Words>
        </Row>
      ))}
      {cables.map((one) => (
        <Row
          key={one.id}
          label={THING_WORDS.cable2({ port: one.from.port })}
          onPress={() => go(`cable/${one.id}`)}
        >
          <Words size="second">
            {THING_WORDS.cable({
              deviceId: titleOf(one.from.deviceId),
              port: one.from.port,
              deviceId2: titleOf(one.to.deviceId),
              port2: one.to.port,
            })}
          </Words>
        </Row>
      ))}
      <Button
        type="clear"
        title={THING_WORDS.anotherInterface}
        disabled={plan.subnets.length === 0}
        onPress={() =>
          add(newInterface(plan, deviceId), THING_WORDS.addedAnInterfaceTo({ title: device.title }))
        }
      />
      <Button
        type="clear"
        title={THING_WORDS.anotherCable}
        disabled={plan.devices.length < 2}
        onPress={() =>
          add(newCable(plan, deviceId), THING_WORDS.addedACableTo({ title: device.title }))
        }
      />
      <Refusals issues={issuesOf(edit.error)} />
    </View>
  );
}

const pathOf = (edit: Edit): string =>
  `${edit.type}/${edit.op === 'set' ? edit.id : edit.thing.id}`;

/** In the first subnet the device is not in yet, with the next free address there. */
function newInterface(plan: Plan, deviceId: string): Edit | undefined {
  const device = findDevice(plan, deviceId);
  const taken = new Set(device?.interfaces.map((at) => at.subnetId));
  const subnet = plan.subnets.find((one) => !taken.has(one.id)) ?? plan.subnets[0];
  const kind = device && findKind(plan, device.kindId);
  if (!device || !subnet) return undefined;
  const avoided = avoidedFor(plan, subnet, { kind, way: device.way, now: Date.now() });
  const address = nextFree(subnet, kind?.role ?? 'io', avoided);
  if (address === undefined) return undefined;
  const at = toInterface({ id: newId(), deviceId, subnetId: subnet.id, address });
  return { op: 'add', type: 'interface', thing: docOf('interface', at) };
}

function newCable(plan: Plan, deviceId: string): Edit | undefined {
  const other = plan.devices.find((one) => one.id !== deviceId);
  if (!other) return undefined;
  const cable = {
    ...{ id: newId(), note: '' },
    from: { deviceId, port: '1' },
    to: { deviceId: other.id, port: '1' },
  };
  return { op: 'add', type: 'cable', thing: docOf('cable', cable) };
}
