import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { WIRE_WORDS } from '@ipsonomo/language/screens/wire';
import { acts, useAct, useField, usePlan, usePresent } from '../../data';
import { AddressText, LongList, MacText, Refusals, Row, Words } from '../../parts';
import { issuesOf, lengthOf } from '../words';
import { whoIsThere, type Stranger } from './who-is-there';

/** Who was seen with which address: what the plan does not know, and what is elsewhere than planned. */
export function WhoIsThere({ job }: { readonly job: string }) {
  const router = useRouter();
  const { view } = usePlan(job);
  const field = useField();
  const present = usePresent();
  if (!view) return null;
  const { asPlanned, elsewhere, strangers } = whoIsThere(view, present, field);
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {WIRE_WORDS.whoIsThere}
      </Words>
      <Words size="second" tone="second">
        {WIRE_WORDS.deviceSeenAtItsPlannedAddress({
          asPlanned,
          elsewhere: elsewhere.length,
          strangers: strangers.length,
        })}
      </Words>
      <SweepButton job={job} />
      {elsewhere.map(({ device, at, seen }) => (
        <Row
          key={at.id}
          label={WIRE_WORDS.goTo({ title: device.title })}
          onPress={() => router.navigate(`/job/${job}/call/${at.id}`)}
        >
          <Words size="strong">{device.title}</Words>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6, alignItems: 'center' }}>
            <Words size="second" tone="brick">
              {WIRE_WORDS.isAt}
            </Words>
            <AddressText still size="small" address={seen.address} />
            <Words size="second" tone="second">
              {WIRE_WORDS.planned}
            </Words>
            <AddressText
              still
              size="small"
              address={at.address}
              length={lengthOf(view?.subnets.find(({ id }) => id === at.subnetId)?.network)}
            />
          </View>
        </Row>
      ))}
      <LongList
        items={strangers}
        keyOf={({ mac }) => mac}
        render={(one) => (
          <Row>
            <StrangerLine stranger={one} />
          </Row>
        )}
      />
    </View>
  );
}

/** Asks for every address of the planned subnets, and of those the kinds come from. */
export function SweepButton({ job }: { readonly job: string }) {
  const field = useField();
  const sweep = useAct(acts.sweep, { job });
  const task = field?.tasks.find(({ kind }) => kind === 'sweep');
  return (
    <>
      <Refusals issues={issuesOf(sweep.error)} />
      <Button
        type="outline"
        title={
          task
            ? COMMON_WORDS.askingForEveryAddress({ phase: task.phase })
            : WIRE_WORDS.askForEveryAddress
        }
        disabled={task !== undefined}
        onPress={() => sweep.mutate()}
      />
    </>
  );
}

const MANY = 8;

export function StrangerLine({ stranger }: { readonly stranger: Stranger }) {
  const { mac, addresses, mayBe } = stranger;
  return (
    <View style={{ gap: 2 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10, alignItems: 'center' }}>
        <MacText mac={mac} />
        {addresses.slice(0, 3).map((address) => (
          <AddressText key={address} still size="small" address={address} />
        ))}
        {addresses.length > 3 ? (
          <Words size="second" tone="second">
            {WIRE_WORDS.andMore({ addresses: addresses.length - 3 })}
          </Words>
        ) : null}
      </View>
      {addresses.length >= MANY ? (
        <Words size="second" tone="ochre">
          {WIRE_WORDS.itAnswersForManyAddressesA}
        </Words>
      ) : null}
      {mayBe ? (
        <Words size="second" tone="second">
          {WIRE_WORDS.hasThePlannedAddressOf({ mayBe })}
        </Words>
      ) : null}
    </View>
  );
}
