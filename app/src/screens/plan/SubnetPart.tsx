import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { findSubnet, type DeviceInfo, type Plan, type Snag, type Subnet } from '@ipsonomo/core';
import { DeviceRow, LinkTo, Words } from '../../parts';
import { placeOf, plural } from '../words';
import { SubnetHead } from './SubnetHead';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly snags: readonly Snag[];
  readonly subnet: Subnet;
  readonly devices: readonly DeviceInfo[];
}

/** How many devices a subnet shows at first; a hall has hundreds. */
const FIRST = 12;
const MORE = 50;

/** A subnet with its ruler and its devices. */
export function SubnetPart({ id, plan, snags, subnet, devices }: Props) {
  const [most, setMost] = useState(FIRST);
  return (
    <View style={{ gap: 8 }}>
      <LinkTo
        href={`/job/${id}/subnet/${subnet.id}`}
        accessibilityLabel={`${subnet.name}, address by address`}
        style={{ gap: 8 }}
      >
        <Words size="device" heading={2}>
          {subnet.name}
        </Words>
        <SubnetHead {...{ plan, snags, subnet }} />
      </LinkTo>
      <DeviceRows id={id} plan={plan} devices={devices.slice(0, most)} />
      {devices.length > most ? (
        <Button
          type="clear"
          title={`Show more of ${plural(devices.length, 'device')}`}
          onPress={() => setMost(most + MORE)}
        />
      ) : null}
      {devices.length === 0 ? (
        <Words size="second" tone="second">
          No device here yet.
        </Words>
      ) : null}
    </View>
  );
}

interface RowsProps {
  readonly id: string;
  readonly plan: Plan;
  readonly devices: readonly DeviceInfo[];
}

/** Devices with their address and how far they have come. */
export function DeviceRows({ id, plan, devices }: RowsProps) {
  const router = useRouter();
  return (
    <View>
      {devices.map((device) => {
        const at = device.interfaces[0];
        const subnet = findSubnet(plan, at?.subnetId);
        if (!at) return null;
        return (
          <DeviceRow
            key={device.id}
            title={device.title}
            second={placeOf(device)}
            address={at.address}
            length={subnet?.prefix.length ?? 24}
            notches={at.notches}
            onPress={() => router.navigate(`/job/${id}/device/${device.id}`)}
          />
        );
      })}
    </View>
  );
}
