import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { addressOrNone, type EvidenceViewOf } from '@ipsonomo/core/api';
import { walkWords } from '@ipsonomo/language';
import { formatIpv4 } from '@ipsonomo/core/net';
import { findInterface, findSubnet, type Plan } from '@ipsonomo/core/plan';
import {
  compareWalk,
  laptopIn,
  predict,
  PreparedNet,
  routeNetOf,
  type WalkStep,
} from '@ipsonomo/core/routes';
import { ROUTES_WORDS } from '@ipsonomo/language/screens/routes';
import { acts, reading, useAct, useField } from '../../data';
import { AddressText, Card, Notice, Pick, Refusals, timeOf, Words } from '../../parts';
import { issuesOf, lengthOf } from '../words';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  /** Of the interface that is walked to. */
  readonly to: string;
  /** The subnet that is nearest to who asks. */
  readonly nearest: string | undefined;
}

/** The way to a device as packets go it, beside the way the plan says. */
export function WalkCard({ job, plan, to, nearest }: Props) {
  const [subnetId, setSubnet] = useState(nearest ?? plan.subnets[0]?.id ?? '');
  const field = useField();
  const walk = useAct(acts.walk, { job, interface: to });
  const seen = useQuery(reading(acts.readEvidence, { job, interface: to })).data ?? [];
  const last = seen.find((one) => one.kind === 'walked');
  const isWalking = field?.tasks.some(
    ({ kind, interfaceId }) => kind === 'walk' && interfaceId === to,
  );
  return (
    <Card>
      <Words size="strong" heading={2}>
        {ROUTES_WORDS.walkItOnTheWire}
      </Words>
      <Pick
        label={ROUTES_WORDS.fromAnAddressOfTheLaptop}
        options={plan.subnets.map(({ id, name }) => ({ value: id, title: name }))}
        value={subnetId}
        onChange={setSubnet}
      />
      <Words size="second" tone="second">
        {ROUTES_WORDS.itsCableMustBeInThat}
      </Words>
      <Refusals issues={issuesOf(walk.error)} />
      <Button
        type="outline"
        title={isWalking ? ROUTES_WORDS.walking : ROUTES_WORDS.walkIt}
        disabled={isWalking === true}
        loading={walk.isPending}
        onPress={() => walk.mutate({ subnetId })}
      />
      {last && !isWalking ? <Walked {...{ plan, to, last }} /> : null}
    </Card>
  );
}

/** Both ways, line by line; the first difference is marked. */
function Walked({
  plan,
  to,
  last,
}: {
  readonly plan: Plan;
  readonly to: string;
  readonly last: EvidenceViewOf<'walked'>;
}) {
  const { path, ended, from, subnet: subnetId } = last.facts;
  const subnet = findSubnet(plan, subnetId);
  const voice = addressOrNone(String(from));
  const { device, at: target } = findInterface(plan, to) ?? {};
  if (!subnet || voice === undefined || !device || !target)
    return <Notice tone="plain">{ROUTES_WORDS.itWasWalkedFromASubnet}</Notice>;
  const laptop = laptopIn(subnet, voice);
  const { hosts } = routeNetOf(plan);
  const net = new PreparedNet({ hosts: [...hosts, laptop] });
  const start = net.host(laptop.id);
  if (!start) return null;
  const told = predict(net, { from: start, to: target.address, meant: net.host(device.id) });
  const compared = compareWalk(told, String(path).split(' ').map(addressOrNone), ended === 'reply');
  const agrees = compared.differsAt === undefined;
  return (
    <View style={{ gap: 8 }}>
      <Words size="caption" tone="second">
        {ROUTES_WORDS.from3({ from: String(from), at: timeOf(last.at), person: last.person })}
      </Words>
      <View role="table" aria-label={ROUTES_WORDS.stepByStep}>
        <Line cells={['', ROUTES_WORDS.byThePlan, ROUTES_WORDS.onTheWire]} />
        {compared.steps.map((step, at) => (
          <Step key={at} step={step} number={at + 1} differs={at === compared.differsAt} />
        ))}
      </View>
      <Notice tone={agrees ? (compared.reaches.walked ? 'moss' : 'ochre') : 'brick'}>
        {walkWords(compared, device.title)}
      </Notice>
    </View>
  );
}

const NUMBER = 34;

function Line({ cells }: { readonly cells: readonly [string, string, string] }) {
  const [number, ...others] = cells;
  return (
    <View role="row" style={{ flexDirection: 'row', gap: 8 }}>
      <View style={{ width: NUMBER }}>
        <Words size="caption" tone="second">
          {number}
        </Words>
      </View>
      {others.map((text) => (
        <View key={text} style={{ flex: 1 }}>
          <Words size="caption" tone="second">
            {text}
          </Words>
        </View>
      ))}
    </View>
  );
}

interface StepProps {
  readonly step: WalkStep;
  readonly number: number;
  readonly differs: boolean;
}

function Step({ step, number, differs }: StepProps) {
  return (
    <View
      role="row"
      style={{ flexDirection: 'row', gap: 8, alignItems: 'center', paddingVertical: 4 }}
    >
      <View style={{ width: NUMBER }}>
        <Words size="strong" tone={differs ? 'brick' : 'second'}>
          {differs ? `× ${number}` : String(number)}
        </Words>
      </View>
      {[step.predicted, step.walked].map((address, at) => (
        <View key={at} style={{ flex: 1 }}>
          {address === undefined ? (
            <Words size="second" tone="second">
              {ROUTES_WORDS.nobody}
            </Words>
          ) : (
            <AddressText
              address={formatIpv4(address)}
              length={lengthOf(undefined)}
              size="small"
              still
            />
          )}
        </View>
      ))}
    </View>
  );
}
