import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { DeviceInfo } from '@ipsonomo/core';
import type { Job } from '../../data';
import { Field, LongList, Words } from '../../parts';
import { DeviceRows, SubnetPart } from './SubnetPart';

interface Props {
  readonly id: string;
  readonly job: Job;
}

/** From so many on, looking up is quicker than looking through. */
const MANY = 12;
const MOST = 30;
/** A subnet shows a dozen devices. */
const FEW_SUBNETS = 12;
const SUBNET_HEIGHT = 900;
const NONE: readonly DeviceInfo[] = [];

/** All subnets with their devices, or the devices that were looked up. */
export function FoundOrAll({ id, job }: Props) {
  const { plan, view, snags } = job;
  const [wanted, setWanted] = useState('');
  const words = wanted.trim().toLowerCase();
  const bySubnet = useMemo(() => {
    const all = new Map<string | undefined, DeviceInfo[]>();
    for (const device of view.devices) {
      const subnetId = device.interfaces[0]?.subnetId;
      const list = all.get(subnetId);
      if (list) list.push(device);
      else all.set(subnetId, [device]);
    }
    return all;
  }, [view.devices]);
  const found = words === '' ? [] : view.devices.filter((device) => isMeant(device, words));
  return (
    <>
      {view.devices.length >= MANY ? (
        <Field
          label="Look up a device, a name or an address"
          value={wanted}
          onChange={setWanted}
          placeholder=".86"
        />
      ) : null}
      {words === '' ? (
        <LongList
          items={plan.subnets}
          few={FEW_SUBNETS}
          height={SUBNET_HEIGHT}
          keyOf={(subnet) => subnet.id}
          render={(subnet) => (
            <View style={{ paddingBottom: 16 }}>
              <SubnetPart
                {...{ id, plan, snags, subnet }}
                devices={bySubnet.get(subnet.id) ?? NONE}
              />
            </View>
          )}
        />
      ) : null}
      {words === '' ? null : (
        <>
          <DeviceRows id={id} plan={plan} devices={found.slice(0, MOST)} />
          <Words size="second" tone="second">
            {foundWords(found.length)}
          </Words>
        </>
      )}
    </>
  );
}

const isMeant = (device: DeviceInfo, words: string): boolean =>
  [device.title, device.name, device.cabinet, device.area].some((text) =>
    text.toLowerCase().includes(words),
  ) || device.interfaces.some((at) => at.address.includes(words) || at.mac?.includes(words));

function foundWords(count: number): string {
  if (count === 0) return 'No device of this plan is called so.';
  return count > MOST ? `and ${count - MOST} more` : '';
}
