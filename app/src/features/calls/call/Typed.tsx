import { View } from 'react-native';
import { formatIpv4, maskOf, type PrefixLength } from '@ipsonomo/core/net';
import { findDevice } from '@ipsonomo/core/plan';
import { AddressText, Row, Words } from '../../../parts';
import type { Call } from './CallPage';

/** What has to be typed at the device: the values, each copied by a tap. */
export function Typed({ call }: { readonly call: Call }) {
  const planned = findDevice(call.plan, call.device.id);
  const at = planned?.interfaces.find((one) => one.id === call.at.id);
  const subnet = call.plan.subnets.find((one) => one.id === at?.subnetId);
  const own = at?.gateway === 'none' ? undefined : at?.gateway;
  const gateway = own === 'subnet' ? subnet?.gateway : own;
  const mask = at?.mask ?? maskOf(call.length as PrefixLength);
  const rows = [
    ['Address', call.at.address],
    ['Mask', formatIpv4(mask)],
    ['Gateway', gateway === undefined ? undefined : formatIpv4(gateway)],
  ] as const;
  return (
    <View>
      <Words size="strong" heading={2}>
        Type there
      </Words>
      <View role="list" aria-label="Values to type">
        {rows.map(([title, value]) => (
          <Row key={title} isItem>
            <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 12 }}>
              <Words tone="second">{title}</Words>
              {value === undefined ? (
                <Words>leave it empty</Words>
              ) : (
                <AddressText address={value} length={call.length} />
              )}
            </View>
          </Row>
        ))}
      </View>
    </View>
  );
}
