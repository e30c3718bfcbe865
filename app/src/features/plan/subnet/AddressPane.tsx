import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { formatIpv4, type Ipv4 } from '@ipsonomo/core/net';
import {
  changeOf,
  docOf,
  findDoc,
  type Plan,
  type PlanDoc,
  type Subnet,
} from '@ipsonomo/core/plan';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { SUBNET_WORDS } from '@ipsonomo/language/screens/subnet';
import { useEdit } from '../../../data';
import { AddressText, Field, Refusals, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';
import { useWords, type Use } from './tape';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly subnet: Subnet;
  readonly address: Ipv4;
  readonly use: Use;
  readonly onDone: () => void;
}

/** Who has the touched address, or whom it could be given to. */
export function AddressPane(props: Props) {
  const { job, subnet, address, use } = props;
  const router = useRouter();
  const [step, setStep] = useState<'look' | 'give' | 'hold'>('look');
  const [first] = use.kind === 'given' ? use.devices : [];
  const isFree = use.kind === 'free' || use.kind === 'freed';
  return (
    <View style={{ gap: 8 }}>
      <AddressText size="call" address={formatIpv4(address)} length={subnet.prefix.length} />
      <Words>{useWords(use)}</Words>
      {first ? (
        <Button
          size="lg"
          title={SUBNET_WORDS.open({ title: first.title })}
          onPress={() => router.navigate(`/job/${job}/device/${first.id}`)}
        />
      ) : null}
      {isFree && step === 'look' ? (
        <>
          <Button size="lg" title={SUBNET_WORDS.giveItTo} onPress={() => setStep('give')} />
          <Button type="clear" title={SUBNET_WORDS.heldByOthers2} onPress={() => setStep('hold')} />
        </>
      ) : null}
      {step === 'give' ? <Give {...props} /> : null}
      {step === 'hold' ? <Hold {...props} /> : null}
      <Button type="clear" title={COMMON_WORDS.leaveIt} onPress={props.onDone} />
    </View>
  );
}

const MOST = 4;

/** Another device of the subnet moves here. */
function Give({ job, plan, doc, subnet, address, onDone }: Props) {
  const edit = useEdit(job);
  const [wanted, setWanted] = useDraft(`give ${address}`);
  const words = wanted.trim().toLowerCase();
  const found = plan.devices.flatMap((device) => {
    const at = device.interfaces.find((one) => one.subnetId === subnet.id);
    const isMeant = `${device.title} ${device.name}`.toLowerCase().includes(words);
    return at && isMeant ? [{ device, at }] : [];
  });
  const give = (id: string, title: string) => {
    const thing = findDoc(doc, 'interface', id);
    if (!thing) return;
    edit.mutate(
      {
        edits: changeOf('interface', thing, { address: formatIpv4(address) }),
        why: SUBNET_WORDS.gave({ title, address: formatIpv4(address) }),
      },
      { onSuccess: onDone },
    );
  };
  return (
    <View style={{ gap: 6 }}>
      <Field
        label={SUBNET_WORDS.toWhichDeviceOfThisSubnet}
        value={wanted}
        onChange={setWanted}
        autoFocus
      />
      {found.slice(0, MOST).map(({ device, at }) => (
        <Button
          key={at.id}
          type="outline"
          title={SUBNET_WORDS.now({ title: device.title, address: formatIpv4(at.address) })}
          onPress={() => give(at.id, device.title)}
        />
      ))}
      {found.length > MOST ? (
        <Words size="second" tone="second">
          {SUBNET_WORDS.andMoreTypeAPartOf({ found: found.length - MOST })}
        </Words>
      ) : null}
      <Refusals issues={issuesOf(edit.error)} />
    </View>
  );
}

function Hold({ job, doc, subnet, address, onDone }: Props) {
  const edit = useEdit(job);
  const [note, setNote, forget] = useDraft(`hold ${subnet.id} ${address}`);
  const hold = () => {
    const thing = findDoc(doc, 'subnet', subnet.id);
    if (!thing) return;
    const held = [...subnet.held, { first: address, last: address, note: note.trim() }];
    const after = docOf('subnet', { ...subnet, held });
    edit.mutate(
      {
        edits: changeOf('subnet', thing, { held: after['held'] ?? [] }),
        why: SUBNET_WORDS.held({ address: formatIpv4(address) }),
      },
      { onSuccess: () => (forget(), onDone()) },
    );
  };
  return (
    <View style={{ gap: 6 }}>
      <Field label={SUBNET_WORDS.byWhomAndWhatFor} value={note} onChange={setNote} autoFocus />
      <Button
        title={SUBNET_WORDS.holdIt}
        disabled={note.trim() === ''}
        loading={edit.isPending}
        onPress={hold}
      />
      <Refusals issues={issuesOf(edit.error)} />
    </View>
  );
}
