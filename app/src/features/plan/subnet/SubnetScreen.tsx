import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatIpv4, formatPrefix, hostCountOf, type Ipv4, type Prefix } from '@ipsonomo/core/net';
import { givenAddresses } from '@ipsonomo/core/plan';
import { SUBNET_WORDS } from '@ipsonomo/language/screens/subnet';
import { useJob, type Job } from '../../../data';
import { AddressText, Card, Page, Refusals, SubnetRuler, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { clashesIn } from '../SubnetHead';
import { issuesOf } from '../../words';
import { AddressPane } from './AddressPane';
import { ChangeSubnet } from './ChangeSubnet';
import { isOne, Tape } from './tape';
import { Parts, TapeView } from './TapeView';

/** One subnet, address by address. */
export function SubnetScreen({
  job: id,
  subnet,
}: {
  readonly job: string;
  readonly subnet: string;
}) {
  const { job, error } = useJob(id);
  const found = job?.plan.subnets.find((one) => one.id === subnet);
  if (!job || !found)
    return (
      <Page>
        <Refusals issues={issuesOf(error)} />
        {job ? <Words>{SUBNET_WORDS.thisSubnetIsNoLongerIn}</Words> : null}
      </Page>
    );
  return <Shown {...{ id, job }} subnet={found} />;
}

interface Props {
  readonly id: string;
  readonly job: Job;
  readonly subnet: Job['plan']['subnets'][number];
}

function Shown({ id, job, subnet }: Props) {
  const { plan, doc, snags } = job;
  const wide = useWide();
  const router = useRouter();
  const [view, setView] = useState<Prefix>();
  const [chosen, setChosen] = useState<Ipv4>();
  const [now] = useState(() => Date.now());
  const tape = useMemo(
    () => new Tape(plan, subnet, now, job.now.lastNamed),
    [plan, subnet, now, job.now.lastNamed],
  );
  const given = useMemo(() => [...givenAddresses(plan, subnet.id)], [plan, subnet.id]);
  const clashes = useMemo(() => clashesIn(plan, subnet.id, snags), [plan, subnet.id, snags]);
  const shown = view ?? subnet.prefix;
  const pane =
    chosen === undefined ? null : (
      <AddressPane
        key={chosen}
        {...{ job: id, plan, doc, subnet }}
        address={chosen}
        use={tape.useOf(chosen)}
        onDone={() => setChosen(undefined)}
      />
    );
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      <View style={{ flex: 1 }}>
        <Page action={wide ? null : pane}>
          <View style={{ gap: 4 }}>
            <Words size="second" tone="second">
              {[job.view.name, subnet.purpose].filter(Boolean).join(' · ')}
            </Words>
            <Words size="title" heading={1}>
              {subnet.name}
            </Words>
            <AddressText
              size="call"
              address={formatIpv4(subnet.prefix.network)}
              length={subnet.prefix.length}
              suffix={`/${subnet.prefix.length}`}
            />
            <Words size="second" tone="second">
              {SUBNET_WORDS.givenFree({
                given: given.length,
                prefix: hostCountOf(subnet.prefix) - given.length,
                clashes: clashes.size > 0 ? SUBNET_WORDS.clash2({ clashes: clashes.size }) : '',
                gateway:
                  subnet.gateway === undefined
                    ? SUBNET_WORDS.noGateway
                    : SUBNET_WORDS.gateway({ gateway: formatIpv4(subnet.gateway) }),
              })}
            </Words>
          </View>
          <SubnetRuler subnet={subnet} given={given} clashes={clashes} />
          {view ? (
            <Button
              type="clear"
              title={SUBNET_WORDS.backToAllOf({ prefix: formatPrefix(subnet.prefix) })}
              onPress={() => setView(undefined)}
            />
          ) : null}
          {isOne(shown) ? (
            <TapeView {...{ tape, clashes, chosen }} view={shown} onChoose={setChosen} />
          ) : (
            <Parts tape={tape} view={shown} onGo={setView} />
          )}
          <Button
            type="outline"
            title={SUBNET_WORDS.realmHeldRangesAndAllThe}
            onPress={() => router.navigate(`/job/${id}/thing/subnet/${subnet.id}`)}
          />
          <ChangeSubnet {...{ id, plan, doc, subnet }} onOpen={() => setChosen(undefined)} />
        </Page>
      </View>
      {wide ? (
        <View style={{ width: 360, padding: 16 }}>
          {pane ? (
            <Card strong>{pane}</Card>
          ) : (
            <Words tone="second">{SUBNET_WORDS.touchAnAddressWhoHasIt}</Words>
          )}
        </View>
      ) : null}
    </View>
  );
}
