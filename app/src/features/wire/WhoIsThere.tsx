import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { acts, useAct, useField, usePlan, usePresent } from '../../data';
import { AddressText, LongList, MacText, Refusals, Row, Words } from '../../parts';
import { issuesOf, lengthOf, plural } from '../words';
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
        Who is there
      </Words>
      <Words size="second" tone="second">
        {`${plural(asPlanned, 'device')} seen at ${asPlanned === 1 ? 'its' : 'their'} planned address, ${elsewhere.length} elsewhere, ${plural(strangers.length, 'stranger')}.`}
      </Words>
      <SweepButton job={job} />
      {elsewhere.map(({ device, at, seen }) => (
        <Row
          key={at.id}
          label={`go to ${device.title}`}
          onPress={() => router.navigate(`/job/${job}/call/${at.id}`)}
        >
          <Words size="strong">{device.title}</Words>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6, alignItems: 'center' }}>
            <Words size="second" tone="brick">
              × is at
            </Words>
            <AddressText still size="small" address={seen.address} />
            <Words size="second" tone="second">
              planned
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
        title={task ? `Asking for every address, ${task.phase}` : 'Ask for every address'}
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
          <Words size="second" tone="second">{`and ${addresses.length - 3} more`}</Words>
        ) : null}
      </View>
      {addresses.length >= MANY ? (
        <Words size="second" tone="ochre">
          ! It answers for many addresses: a router that answers for others (proxy ARP)
        </Words>
      ) : null}
      {mayBe ? (
        <Words size="second" tone="second">{`has the planned address of ${mayBe}`}</Words>
      ) : null}
    </View>
  );
}
