import { Button } from '@rneui/themed';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { DeviceInfo } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import type { Snag } from '@ipsonomo/core/snags';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import type { Job } from '../../data';
import { Field, LinkTo, LongList, Words, useDraft } from '../../parts';
import { DeviceLine } from './DeviceLine';
import { keyOfLine, MORE, planLines, type PlanLine } from './plan-lines';
import { SubnetHead } from './SubnetHead';

interface Props {
  readonly id: string;
  readonly job: Job;
}

/** From so many on, looking up is quicker than looking through. */
const MANY = 12;
const MOST = 30;

/** All subnets with their devices, or the devices that were looked up. */
export function FoundOrAll({ id, job }: Props) {
  const { plan, view } = job;
  const [wanted, setWanted] = useDraft(`find in ${id}`);
  const words = wanted.trim().toLowerCase();
  const found = words === '' ? [] : view.devices.filter((device) => isMeant(device, words));
  return (
    <>
      {view.devices.length >= MANY ? (
        <Field
          label={PLAN_WORDS.lookUpADeviceAName}
          value={wanted}
          onChange={setWanted}
          placeholder=".86"
        />
      ) : null}
      {words === '' ? (
        <All id={id} job={job} />
      ) : (
        <>
          <View>
            {found.slice(0, MOST).map((device) => (
              <DeviceLine key={device.id} {...{ id, plan, device }} />
            ))}
          </View>
          <Words size="second" tone="second">
            {foundWords(found.length)}
          </Words>
        </>
      )}
    </>
  );
}

const NO_MORE: ReadonlyMap<string, number> = new Map();

function All({ id, job: { plan, view, snags } }: Props) {
  const [more, setMore] = useState(NO_MORE);
  const lines = useMemo(
    () => planLines(plan.subnets, view.devices, more),
    [plan.subnets, view.devices, more],
  );
  const showMore = (subnetId: string) =>
    setMore(new Map(more).set(subnetId, (more.get(subnetId) ?? 0) + MORE));
  return (
    <LongList
      items={lines}
      keyOf={keyOfLine}
      render={(line) => <Line {...{ id, plan, snags, line }} onMore={showMore} />}
    />
  );
}

interface LineProps {
  readonly id: string;
  readonly plan: Plan;
  readonly snags: readonly Snag[];
  readonly line: PlanLine;
  readonly onMore: (subnetId: string) => void;
}

function Line({ id, plan, snags, line, onMore }: LineProps) {
  switch (line.kind) {
    case 'subnet':
      return (
        <LinkTo
          href={`/job/${id}/subnet/${line.subnet.id}`}
          accessibilityLabel={PLAN_WORDS.addressByAddress({ name: line.subnet.name })}
          style={{ gap: 8, paddingTop: 12, paddingBottom: 8 }}
        >
          <Words size="device" heading={2}>
            {line.subnet.name}
          </Words>
          <SubnetHead {...{ plan, snags }} subnet={line.subnet} />
        </LinkTo>
      );
    case 'device':
      return <DeviceLine {...{ id, plan }} device={line.device} />;
    case 'more':
      return (
        <Button
          type="clear"
          title={PLAN_WORDS.showMoreOfDevice({ count: line.count })}
          onPress={() => onMore(line.subnet.id)}
        />
      );
    case 'empty':
      return (
        <Words size="second" tone="second">
          {PLAN_WORDS.noDeviceHereYet}
        </Words>
      );
  }
}

const isMeant = (device: DeviceInfo, words: string): boolean =>
  [device.title, device.name, device.cabinet, device.area].some((text) =>
    text.toLowerCase().includes(words),
  ) || device.interfaces.some((at) => at.address.includes(words) || at.mac?.includes(words));

function foundWords(count: number): string {
  if (count === 0) return PLAN_WORDS.noDeviceOfThisPlanIs;
  return count > MOST ? PLAN_WORDS.andMore({ count: count - MOST }) : '';
}
