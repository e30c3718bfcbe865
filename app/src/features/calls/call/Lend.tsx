import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { formatIpv4, parseIpv4 } from '@ipsonomo/core/net';
import { findDevice, findSubnet, checkAddress, proposeLoan } from '@ipsonomo/core/plan';
import { useEdit, usePresent, useWire } from '../../../data';
import { Choice, dueOf, Field, Notice, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { AnswerAction, useAnswering } from './Answering';
import { Bound } from './Bound';
import { CallPage, type Call } from './CallPage';

const HOURS = ['1', '4', '12'] as const;
const HOUR = 3_600_000;

/** Another address for now, while the planned one cannot be had. */
export function Lend({ call }: { readonly call: Call }) {
  const [open, setOpen] = useState(false);
  if (open) return <LendForm call={call} onLeave={() => setOpen(false)} />;
  return <Button type="clear" title="Lend it another address" onPress={() => setOpen(true)} />;
}

function LendForm({ call, onLeave }: { readonly call: Call; readonly onLeave: () => void }) {
  const { job, plan, device, at } = call;
  const edit = useEdit(job);
  const planned = findDevice(plan, device.id);
  const own = planned?.interfaces.find(({ id }) => id === at.id);
  const subnet = findSubnet(plan, at.subnetId);
  const [hours, setHours] = useState<(typeof HOURS)[number]>('4');
  const [text, setText] = useState(() => {
    const free = planned && own && proposeLoan(plan, planned, own, Date.now());
    return free === undefined ? '' : formatIpv4(free);
  });
  const address = parseIpv4(text);
  const issues = !address.ok
    ? [address.error]
    : subnet
      ? checkAddress(plan, subnet, address.value, at.id)
      : [];
  const lend = () => {
    if (!address.ok) return;
    const to = { address: formatIpv4(address.value), until: Date.now() + Number(hours) * HOUR };
    edit.mutate({
      edits: [{ op: 'set', type: 'interface', id: at.id, field: 'loan', from: null, to }],
      why: `lent ${to.address} to ${device.title}`,
    });
  };
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        Lend it another address
      </Words>
      <Words size="second" tone="second">
        {`Where ${at.address} cannot be had yet. When the time is over it is given the planned one again.`}
      </Words>
      <Field label="Address to lend" value={text} onChange={setText} />
      <Choice
        label="For how many hours?"
        options={HOURS.map((value) => ({ value, title: value }))}
        value={hours}
        onChange={setHours}
      />
      <Refusals issues={issues.length > 0 ? issues : issuesOf(edit.error)} />
      <Button
        type="outline"
        title="Lend it"
        disabled={issues.length > 0}
        loading={edit.isPending}
        onPress={lend}
      />
      <Button type="clear" title="Leave it" onPress={onLeave} />
    </View>
  );
}

/** It has been lent an address: whether it has it, and its return. */
export function LoanStep({ call }: { readonly call: Call }) {
  const { job, at, device } = call;
  const { now } = useWire();
  const present = usePresent();
  const answering = useAnswering(job);
  const edit = useEdit(job);
  const { loan } = at;
  if (!loan) return null;
  const isOver = now >= loan.until;
  const own = at.mac ?? at.askedBy;
  const has = present.some(({ mac, address }) => mac === own && address === loan.address);
  const takeBack = () =>
    edit.mutate({
      edits: [
        { op: 'set', type: 'interface', id: at.id, field: 'loan', from: { ...loan }, to: null },
      ],
      why: `took ${loan.address} back from ${device.title}`,
    });
  const back = (
    <Button
      size="lg"
      type={isOver ? 'solid' : 'outline'}
      title={`Take ${loan.address} back`}
      loading={edit.isPending}
      onPress={takeBack}
    />
  );
  return (
    <CallPage
      call={call}
      action={isOver ? back : has ? undefined : <AnswerAction answering={answering} />}
    >
      <Refusals issues={issuesOf(edit.error ?? answering.error)} />
      {isOver ? (
        <Notice tone="ochre" title={`The loan of ${loan.address} is over`}>
          {`It ended at ${dueOf(loan.until)}. Take it back, then power the device off and on: it asks again and is given ${at.address}.`}
        </Notice>
      ) : (
        <Notice
          tone={has ? 'moss' : 'plain'}
          title={`Lent ${loan.address} until ${dueOf(loan.until)}`}
        >
          {has
            ? `It has that address now, and not ${at.address}: the call stays open until that is back.`
            : 'Its next request is answered with that address. Power it off and on if you do not want to wait.'}
        </Notice>
      )}
      {isOver ? null : back}
      <Bound call={call} />
    </CallPage>
  );
}
