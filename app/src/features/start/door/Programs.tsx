import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import type { AccountView, Role } from '@ipsonomo/core/api';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { acts, useAct } from '../../../data';
import { Card, Field, Notice, Pick, Refusals, Words, useDraft } from '../../../parts';
import { issuesOf, leftWords } from '../../words';
import { TakeAway } from './AccountCard';
import { ROLE_OPTIONS, ROLE_WORDS } from './role-words';

interface Props {
  readonly programs: readonly AccountView[];
  readonly now: number;
}

/** Programs that act with a token, and a token for another. */
export function Programs({ programs, now }: Props) {
  const add = useAct(acts.addProgram, {});
  const [name, setName] = useDraft('program');
  const [role, setRole] = useState<Role>('look');
  const [days, setDays] = useState('90');
  const isReady = name.trim() !== '' && /^[1-9]\d{0,2}$/.test(days);
  return (
    <Card>
      <Words size="strong" heading={2}>
        {DOOR_WORDS.programs}
      </Words>
      <Words tone="second">{DOOR_WORDS.aProgramActs}</Words>
      {programs.map((one) => (
        <View key={one.id} style={{ alignItems: 'flex-start' }}>
          <Words size="device">{one.name}</Words>
          <Words size="second" tone="second">
            {DOOR_WORDS.accountLine({ role: ROLE_WORDS[one.role], hasPassword: 'true' })} ·{' '}
            {DOOR_WORDS.goodFor({ left: leftWords(one.endsAt ?? now, now) })}
          </Words>
          <TakeAway id={one.id} name={one.name} />
        </View>
      ))}
      {add.data ? (
        <Notice tone="moss" title={DOOR_WORDS.theToken}>
          {add.data.token}
        </Notice>
      ) : null}
      <Field label={DOOR_WORDS.itsName} value={name} onChange={setName} />
      <Pick<Role>
        label={DOOR_WORDS.whatTheyMayDo}
        options={ROLE_OPTIONS}
        value={role}
        onChange={setRole}
      />
      <Field label={DOOR_WORDS.daysItHolds} value={days} numeric onChange={setDays} />
      <Refusals issues={issuesOf(add.error)} />
      <Button
        type="outline"
        title={DOOR_WORDS.makeAToken}
        disabled={!isReady}
        loading={add.isPending}
        onPress={() =>
          add.mutate({ name, role, days: Number(days) }, { onSuccess: () => setName('') })
        }
      />
    </Card>
  );
}
