import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { formatIpv4, parseIpv4 } from '@ipsonomo/core/net';
import { findDevice, findSubnet, checkAddress, proposeLoan } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { useEdit, usePresent, useWire } from '../../../data';
import { Choice, dueOf, Field, Notice, Refusals, Words, useKept } from '../../../parts';
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
  return (
    <Button type="clear" title={CALL_WORDS.lendItAnotherAddress} onPress={() => setOpen(true)} />
  );
}

function LendForm({ call, onLeave }: { readonly call: Call; readonly onLeave: () => void }) {
  const { job, plan, device, at } = call;
  const edit = useEdit(job);
  const planned = findDevice(plan, device.id);
  const own = planned?.interfaces.find(({ id }) => id === at.id);
  const subnet = findSubnet(plan, at.subnetId);
  const [hours, setHours] = useKept<(typeof HOURS)[number]>(`lend for ${at.id}`, '4');
  const [free] = useState(() => planned && own && proposeLoan(plan, planned, own, Date.now()));
  const proposed = free === undefined ? '' : formatIpv4(free);
  const [text, setText, forget] = useKept(`lend ${at.id}`, proposed);
  const address = parseIpv4(text);
  const issues = !address.ok
    ? [address.error]
    : subnet
      ? checkAddress(plan, subnet, address.value, at.id)
      : [];
  const lend = () => {
    if (!address.ok) return;
    const to = { address: formatIpv4(address.value), until: Date.now() + Number(hours) * HOUR };
    const why = CALL_WORDS.lentTo({ address: to.address, title: device.title });
    const set = { op: 'set', type: 'interface', id: at.id, field: 'loan', from: null, to } as const;
    // Also where this form is gone by then: the news of the loan may come before the answer.
    void edit.mutateAsync({ edits: [set], why }).then(forget, () => undefined);
  };
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {CALL_WORDS.lendItAnotherAddress}
      </Words>
      <Words size="second" tone="second">
        {CALL_WORDS.whereCannotBeHadYetWhen({ address: at.address })}
      </Words>
      <Field label={CALL_WORDS.addressToLend} value={text} onChange={setText} />
      <Choice
        label={CALL_WORDS.forHowManyHours}
        options={HOURS.map((value) => ({ value, title: value }))}
        value={hours}
        onChange={setHours}
      />
      <Refusals issues={issues.length > 0 ? issues : issuesOf(edit.error)} />
      <Button
        type="outline"
        title={CALL_WORDS.lendIt}
        disabled={issues.length > 0}
        loading={edit.isPending}
        onPress={lend}
      />
      <Button
        type="clear"
        title={COMMON_WORDS.leaveIt}
        onPress={() => {
          forget();
          onLeave();
        }}
      />
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
      why: CALL_WORDS.tookBackFrom({ address: loan.address, title: device.title }),
    });
  const back = (
    <Button
      size="lg"
      type={isOver ? 'solid' : 'outline'}
      title={CALL_WORDS.takeBack({ address: loan.address })}
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
        <Notice tone="ochre" title={CALL_WORDS.theLoanOfIsOver({ address: loan.address })}>
          {CALL_WORDS.itEndedAtTakeItBack({ until: dueOf(loan.until), address: at.address })}
        </Notice>
      ) : (
        <Notice
          tone={has ? 'moss' : 'plain'}
          title={CALL_WORDS.lentUntil({ address: loan.address, until: dueOf(loan.until) })}
        >
          {has
            ? CALL_WORDS.itHasThatAddressNowAnd({ address: at.address })
            : CALL_WORDS.itsNextRequestIsAnsweredWith}
        </Notice>
      )}
      {isOver ? null : back}
      <Bound call={call} />
    </CallPage>
  );
}
