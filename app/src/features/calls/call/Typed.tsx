import { View } from 'react-native';
import { formatIpv4, maskOf, type PrefixLength } from '@ipsonomo/core/net';
import { findDevice } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
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
    [COMMON_WORDS.address, call.at.address],
    [CALL_WORDS.mask, formatIpv4(mask)],
    [COMMON_WORDS.gateway, gateway === undefined ? undefined : formatIpv4(gateway)],
  ] as const;
  return (
    <View>
      <Words size="strong" heading={2}>
        {CALL_WORDS.typeThere}
      </Words>
      <View role="list" aria-label={CALL_WORDS.valuesToType}>
        {rows.map(([title, value]) => (
          <Row key={title} isItem>
            <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 12 }}>
              <Words tone="second">{title}</Words>
              {value === undefined ? (
                <Words>{CALL_WORDS.leaveItEmpty}</Words>
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
