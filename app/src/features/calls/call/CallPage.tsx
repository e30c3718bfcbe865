import { View } from 'react-native';
import type { DeviceInfo, InterfaceView } from '@ipsonomo/core/api';
import { type Kind, type Plan } from '@ipsonomo/core/plan';
import { WAY_WORDS } from '@ipsonomo/language';
import { AddressText, Page, StageNotches, Words } from '../../../parts';
import type { HeardOffer } from '../assign/awaited';
import { AtIt, SomebodyElse } from '../at-it/AtIt';
import { Seen } from '../../plan';
import { HeldHere } from '../../waiting';
import { placeOf } from '../../words';

/** What every step of a call is told. */
export interface Call {
  readonly job: string;
  readonly plan: Plan;
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
  readonly kind: Kind | undefined;
  readonly offers: readonly HeardOffer[];
  /** Prefix length of its subnet. */
  readonly length: number | undefined;
}

/** The head of a call and what was seen so far, around the step that is next. */
export function CallPage({
  call,
  action,
  children,
}: {
  readonly call: Call;
  readonly action?: React.ReactNode;
  readonly children: React.ReactNode;
}) {
  const { device, at, length } = call;
  return (
    <Page action={action}>
      <View style={{ gap: 4 }}>
        <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 8 }}>
          <Words size="second" tone="second">
            {[placeOf(device), WAY_WORDS[device.way]].filter(Boolean).join(' · ')}
          </Words>
          <StageNotches notches={at.notches} size={18} />
        </View>
        <Words size="title" heading={1}>
          {device.title}
        </Words>
        <AddressText size="call" address={at.address} length={length} />
      </View>
      <SomebodyElse job={call.job} id={at.id} />
      <HeldHere id={at.id} />
      {children}
      <AtIt job={call.job} id={at.id} />
      <Seen job={call.job} at={at} />
    </Page>
  );
}
