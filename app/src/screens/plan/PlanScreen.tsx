import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import {
  hostCountOf,
  interfacesOf,
  parseIpv4,
  type DeviceInfo,
  type Ipv4,
  type JobView,
  type Plan,
  type Subnet,
} from '@ipsonomo/core';
import { AddressText, DeviceRow, Page, Refusals, SubnetRuler, Words } from '../../parts';
import { useWide } from '../../theme';
import { DevicePane } from '../device/DevicePane';
import { issuesOf, placeOf, plural } from '../words';
import { usePlan } from './use-plan';

interface Props {
  readonly job: string;
  /** The device shown beside the list where it is wide. */
  readonly selected?: string;
}

/** Subnets and devices as planned. */
export function PlanScreen({ job, selected }: Props) {
  const wide = useWide();
  const router = useRouter();
  const { view, plan, error } = usePlan(job);
  const shown = selected ?? view?.devices[0]?.id;
  const empty = view !== undefined && view.subnets.length === 0;
  const list = (
    <Page
      maxWidth={820}
      action={
        empty ? (
          <Button
            size="lg"
            title="Add the first subnet"
            onPress={() => router.navigate(`/job/${job}/new-subnet`)}
          />
        ) : (
          <Button
            size="lg"
            title="Add devices"
            onPress={() => router.navigate(`/job/${job}/new-devices`)}
          />
        )
      }
    >
      <Words size="title" heading={1}>
        {view?.name ?? 'Plan'}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {empty ? (
        <Words tone="second">
          A plan begins with a subnet: which addresses does this site have for its devices?
        </Words>
      ) : null}
      {view && plan
        ? plan.subnets.map((subnet) => (
            <SubnetPart key={subnet.id} {...{ job, view, plan, subnet, wide }} selected={shown} />
          ))
        : null}
      {view && !empty ? (
        <Button
          type="outline"
          title="Add a subnet"
          onPress={() => router.navigate(`/job/${job}/new-subnet`)}
        />
      ) : null}
    </Page>
  );
  if (!wide) return list;
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      <View style={{ flex: 3 }}>{list}</View>
      <View style={{ flex: 2 }}>{shown ? <DevicePane job={job} device={shown} /> : null}</View>
    </View>
  );
}

interface SubnetProps {
  readonly job: string;
  readonly view: JobView;
  readonly plan: Plan;
  readonly subnet: Subnet;
  readonly wide: boolean;
  readonly selected: string | undefined;
}

function SubnetPart({ job, view, plan, subnet, wide, selected }: SubnetProps) {
  const router = useRouter();
  const devices = view.devices.filter((device) => device.interfaces[0]?.subnetId === subnet.id);
  const given = interfacesOf(plan)
    .filter(({ at }) => at.subnetId === subnet.id)
    .map(({ at }) => at.address);
  const clashes = clashesOf(devices);
  const network = subnetText(view, subnet.id);
  return (
    <View style={{ gap: 8 }}>
      <Words size="device" heading={2}>
        {subnet.name}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 12 }}>
        <AddressText
          address={network.split('/')[0] ?? ''}
          length={subnet.prefix.length}
          suffix={`/${subnet.prefix.length}`}
        />
        <Words size="second" tone="second">
          {given.length} given, {hostCountOf(subnet.prefix) - given.length} free
          {subnet.vlan === undefined ? '' : ` · VLAN ${subnet.vlan}`}
          {clashes.size > 0 ? ` · ${plural(clashes.size, 'clash', 'clashes')}` : ''}
        </Words>
      </View>
      <SubnetRuler subnet={subnet} given={given} clashes={clashes} />
      <View>
        {devices.map((device) => {
          const at = device.interfaces[0];
          if (!at) return null;
          return (
            <DeviceRow
              key={device.id}
              title={device.title}
              second={placeOf(device)}
              address={at.address}
              length={subnet.prefix.length}
              notches={at.notches}
              selected={wide && device.id === selected}
              onPress={() => router.navigate(`/job/${job}/device/${device.id}`)}
            />
          );
        })}
      </View>
      {devices.length === 0 ? (
        <Words size="second" tone="second">
          No device here yet.
        </Words>
      ) : null}
    </View>
  );
}

const subnetText = (view: JobView, id: string): string =>
  view.subnets.find((subnet) => subnet.id === id)?.network ?? '';

function clashesOf(devices: readonly DeviceInfo[]): ReadonlySet<Ipv4> {
  const wrong = devices
    .filter((device) => device.snags.some((snag) => snag.severity === 'wrong'))
    .flatMap((device) => device.interfaces);
  return new Set(
    wrong.flatMap(({ address }) => {
      const read = parseIpv4(address);
      return read.ok ? [read.value] : [];
    }),
  );
}
