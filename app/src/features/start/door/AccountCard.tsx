import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { adapterOf, type AccountView, type Role, type SendGrantView } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { acts, hasRight, jobsQuery, useActOn, wiresQuery } from '../../../data';
import { Card, Pick, Refusals, Words } from '../../../parts';
import { issuesOf, leftWords } from '../../words';
import { ROLE_OPTIONS, ROLE_WORDS } from './role-words';

interface Props {
  readonly account: AccountView;
  readonly now: number;
  readonly onKey: () => void;
}

const HOURS = 12;

/** A person: what they may do, on which wires they may send, another way in, and their end here. */
export function AccountCard({ account, now, onKey }: Props) {
  const { id, role, hasPassword, isOwn } = account;
  const name = account.name || DOOR_WORDS.noNameGivenYet;
  const change = useActOn(acts.changePerson);
  return (
    <Card>
      <Words size="device" heading={2}>
        {name}
        {isOwn ? DOOR_WORDS.you : ''}
      </Words>
      <Words size="second" tone="second">
        {DOOR_WORDS.accountLine({ role: ROLE_WORDS[role], hasPassword: String(hasPassword) })}
      </Words>
      <Refusals issues={issuesOf(change.error)} />
      <Pick<Role>
        label={`${DOOR_WORDS.whatTheyMayDo}: ${name}`}
        options={ROLE_OPTIONS}
        value={role}
        onChange={(next) => change.mutate({ params: { account: id }, body: { role: next } })}
      />
      <Sending {...{ account, name, now }} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          type="outline"
          title={DOOR_WORDS.makeAKeyFor}
          accessibilityLabel={DOOR_WORDS.keyFor({ name })}
          onPress={onKey}
        />
        <TakeAway id={id} name={name} />
      </View>
    </Card>
  );
}

/** Where they may send, and wires that are open where they may not yet. */
function Sending({ account, name, now }: Omit<Props, 'onKey'> & { readonly name: string }) {
  const { data: wires = [] } = useQuery(wiresQuery);
  const { data: jobs = [] } = useQuery(jobsQuery);
  const give = useActOn(acts.letSend);
  const end = useActOn(acts.endSending);
  const { id, grants, role } = account;
  const jobName = (job: string) => jobs.find((one) => one.id === job)?.name ?? job;
  const open = wires.flatMap(({ jobId: job, source }) => {
    const wire = adapterOf(source);
    return wire === undefined || grants.some((one) => one.job === job && one.wire === wire)
      ? []
      : [{ job, wire }];
  });
  return (
    <>
      <Refusals issues={issuesOf(give.error ?? end.error)} />
      {grants.map((one) => (
        <GrantLine
          key={`${one.job} ${one.wire}`}
          {...{ one, now }}
          job={jobName(one.job)}
          onEnd={() => end.mutate({ params: { job: one.job }, body: { account: id } })}
        />
      ))}
      {hasRight(role, 'send')
        ? open.map(({ job, wire }) => (
            <Button
              key={`${job} ${wire}`}
              type="outline"
              title={DOOR_WORDS.letSendOn({ wire })}
              accessibilityLabel={DOOR_WORDS.letSendOnOf({ name, wire, job: jobName(job) })}
              onPress={() => give.mutate({ params: { job }, body: { account: id, hours: HOURS } })}
            />
          ))
        : null}
    </>
  );
}

interface GrantProps {
  readonly one: SendGrantView;
  readonly job: string;
  readonly now: number;
  readonly onEnd: () => void;
}

function GrantLine({ one, job, now, onEnd }: GrantProps) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 }}>
      <Words size="second">
        {job}:{' '}
        {DOOR_WORDS.maySendOn({ wire: one.wire, by: one.by, left: leftWords(one.until, now) })}
      </Words>
      <Button type="clear" title={DOOR_WORDS.noMoreSending} onPress={onEnd} />
    </View>
  );
}

/** Asks once more: it cannot be taken back. */
export function TakeAway({ id, name }: { readonly id: string; readonly name: string }) {
  const end = useActOn(acts.endPerson);
  const [isAsked, setAsked] = useState(false);
  if (!isAsked)
    return (
      <Button
        type="clear"
        title={DOOR_WORDS.takeAway}
        accessibilityLabel={DOOR_WORDS.takeAwayWho({ name })}
        onPress={() => setAsked(true)}
      />
    );
  return (
    <View style={{ gap: 8, width: '100%' }}>
      <Refusals issues={issuesOf(end.error)} />
      <Button
        title={DOOR_WORDS.takeAwayReally({ name })}
        loading={end.isPending}
        onPress={() => end.mutate({ params: { account: id } })}
      />
      <Button type="clear" title={COMMON_WORDS.leaveIt} onPress={() => setAsked(false)} />
    </View>
  );
}
