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
import { useJob } from '../../data';
import { PlanSheet } from '../sheet/PlanSheet';
import { snagWords } from '../snags/snag-words';
import { issuesOf, placeOf, plural } from '../words';
import { PlanMore } from './PlanMore';
import { SnagLine } from './SnagLine';

interface Props {
  readonly job: string;
  /** The device shown beside the list where it is wide. */
  readonly selected?: string;
}

/** Subnets and devices as planned. */
export function PlanScreen({ job, selected }: Props) {
  const wide = useWide();
  const router = useRouter();
  const { job: now, error } = useJob(job);
  const view = now?.view;
  const plan = now?.plan;
  const empty = view !== undefined && view.subnets.length === 0;
  if (wide && now && !empty) return <PlanSheet id={job} job={now} selected={selected} />;
  return (
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
      {now && !empty ? (
        <SnagLine
          words={snagWords(now.plan, now.snags)}
          isClear={now.snags.length === 0}
          onPress={() => router.navigate(`/job/${job}/snags`)}
        />
      ) : null}
      {empty ? (
        <Words tone="second">
          A plan begins with a subnet: which addresses does this site have for its devices?
        </Words>
      ) : null}
      {view && plan
        ? plan.subnets.map((subnet) => (
            <SubnetPart key={subnet.id} {...{ job, view, plan, subnet }} />
          ))
        : null}
      {now ? <PlanMore id={job} job={now} /> : null}
    </Page>
  );
}

interface SubnetProps {
  readonly job: string;
  readonly view: JobView;
  readonly plan: Plan;
  readonly subnet: Subnet;
}

function SubnetPart({ job, view, plan, subnet }: SubnetProps) {
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
