import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { Role } from '@ipsonomo/core/api';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';
import { acts, useAct, useActOn, useKeys, useNow, usePeople } from '../../../data';
import { Card, Choice, Page, Refusals, TwoColumns, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { AccountCard } from './AccountCard';
import { BrowserLine, KeyLine } from './KeyLines';
import { NewKey } from './NewKey';
import { Programs } from './Programs';
import { ROLE_OPTIONS } from './role-words';

/** Who may do what here, and the way in for somebody else. */
export function PeopleScreen() {
  const { data, error } = usePeople();
  const keys = useKeys();
  const make = useAct(acts.addKey, {});
  const takeBack = useActOn(acts.takeKeyBack);
  const [role, setRole] = useState<Role>('assign');
  const now = useNow(0);
  const router = useRouter();
  const back = (id: string) => takeBack.mutate({ params: { key: id } });
  const people = data?.accounts.filter(({ kind }) => kind === 'person') ?? [];
  return (
    <Page maxWidth={1280}>
      <View style={{ alignItems: 'flex-start' }}>
        <Button type="clear" title={DOOR_WORDS.jobs} onPress={() => router.navigate('/')} />
      </View>
      <Words size="title" heading={1}>
        {DOOR_WORDS.people}
      </Words>
      <Refusals issues={issuesOf(error ?? make.error ?? takeBack.error)} />
      <TwoColumns
        second={
          <>
            {data ? (
              <Programs
                programs={data.accounts.filter(({ kind }) => kind === 'program')}
                now={now}
              />
            ) : null}
            {keys ? (
              <Card>
                <Words size="strong" heading={2}>
                  {DOOR_WORDS.browsersThatAreIn}
                </Words>
                {keys.browsers.map((one) => (
                  <BrowserLine
                    key={one.id}
                    browser={one}
                    now={now}
                    onTakeBack={() => back(one.id)}
                  />
                ))}
                {keys.browsers.length === 0 ? (
                  <Words tone="second">{DOOR_WORDS.noneYet}</Words>
                ) : null}
              </Card>
            ) : null}
            {keys && keys.invitations.length > 0 ? (
              <Card>
                <Words size="strong" heading={2}>
                  {DOOR_WORDS.keysThatLetIn}
                </Words>
                {keys.invitations.map((one) => (
                  <KeyLine key={one.id} one={one} now={now} onTakeBack={() => back(one.id)} />
                ))}
              </Card>
            ) : null}
          </>
        }
      >
        {data ? (
          <>
            <Card>
              <Words size="strong" heading={2}>
                {DOOR_WORDS.letSomebodyIn}
              </Words>
              <Words tone="second">{DOOR_WORDS.aKeyLetsBrowsersInFor}</Words>
              <Choice<Role>
                label={DOOR_WORDS.whatTheyMayDo}
                options={ROLE_OPTIONS}
                value={role}
                onChange={setRole}
              />
              <Button
                size="lg"
                title={DOOR_WORDS.makeAKey}
                loading={make.isPending}
                onPress={() => make.mutate({ role })}
              />
            </Card>
            {make.data ? <NewKey made={make.data} now={now} /> : null}
            {people.map((one) => (
              <AccountCard
                key={one.id}
                account={one}
                now={now}
                onKey={() => make.mutate({ account: one.id })}
              />
            ))}
          </>
        ) : null}
      </TwoColumns>
    </Page>
  );
}
