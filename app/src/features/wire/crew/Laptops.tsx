import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import type { ServerView, SilencedView, WireElsewhere } from '@ipsonomo/core/api';
import { WIRE_WORDS } from '@ipsonomo/language/screens/wire';
import {
  acts,
  hasRight,
  jobsQuery,
  useAct,
  useMe,
  useServers,
  useTimeThereOf,
} from '../../../data';
import { Card, Field, Notice, Refusals, timeOf, useKept, Words } from '../../../parts';
import { elsewhereWords, sourceName } from '../../frame';
import { issuesOf } from '../../words';

/** R-SERVERS: the laptops that work with this database, what goes on at each, and one end to all of it. Nothing where there is one alone. */
export function Laptops() {
  const view = useServers();
  const me = useMe();
  if (!view || view.servers.length < 2) return null;
  const isKeeper = me !== undefined && hasRight(me.role, 'keep');
  return (
    <Card>
      <Words size="strong" heading={2}>
        {WIRE_WORDS.laptopsOfTheCrew}
      </Words>
      <Words size="second" tone="second">
        {WIRE_WORDS.whatTheyDo}
      </Words>
      {view.servers.map((one) => (
        <Laptop key={one.id} server={one} />
      ))}
      {isKeeper ? <SilenceAll /> : null}
      {isKeeper ? <OwnName of={view.servers.find(({ isOwn }) => isOwn)?.name ?? ''} /> : null}
    </Card>
  );
}

function Laptop({ server }: { readonly server: ServerView }) {
  const { name, isOwn, state, heardAt, wires } = server;
  return (
    <View style={{ gap: 2 }}>
      <Words size="device">{isOwn ? `${name} (${WIRE_WORDS.thisLaptop})` : name}</Words>
      {state === 'unheard' ? (
        <Words size="second" tone="brick">
          {WIRE_WORDS.notHeardOfSince({ at: timeOf(heardAt) })}
        </Words>
      ) : null}
      {state === 'ended' ? (
        <Words size="second" tone="second">
          {WIRE_WORDS.endedAt({ at: timeOf(heardAt) })}
        </Words>
      ) : wires.length === 0 ? (
        <Words size="second" tone="second">
          {WIRE_WORDS.noWireInUse}
        </Words>
      ) : (
        wires.map((wire) => <Wire key={wire.jobId} wire={wire} />)
      )}
    </View>
  );
}

function Wire({ wire }: { readonly wire: WireElsewhere }) {
  const { data: jobs = [] } = useQuery(jobsQuery);
  const now = useTimeThereOf(wire.answeringUntil === null ? [] : [wire.answeringUntil]);
  const job = jobs.find(({ id }) => id === wire.jobId)?.name ?? '';
  return (
    <Words size="second" tone="second">
      {`${sourceName(wire.source)} · ${elsewhereWords(wire, now)} · ${WIRE_WORDS.forJobBy({
        job,
        person: wire.person ?? 'none',
      })}`}
    </Words>
  );
}

function SilenceAll() {
  const silence = useAct(acts.silenceEverywhere, {});
  return (
    <>
      <Button
        type="outline"
        title={WIRE_WORDS.fallSilentOnAllLaptops}
        loading={silence.isPending}
        onPress={() => silence.mutate()}
      />
      <Refusals issues={issuesOf(silence.error)} />
      {silence.data ? <Silenced told={silence.data} /> : null}
    </>
  );
}

function Silenced({ told }: { readonly told: SilencedView }) {
  const named = (isSilent: boolean) =>
    told.servers.filter((one) => one.isSilent === isSilent).map(({ name }) => name);
  const [silent, others] = [named(true), named(false)];
  return (
    <View role="status" style={{ gap: 8 }}>
      {others.length > 0 ? (
        <Notice tone="brick" title={WIRE_WORDS.didNotAnswer({ names: others.join(', ') })} />
      ) : null}
      <Words size="second">{WIRE_WORDS.fellSilent({ names: silent.join(', ') })}</Words>
    </View>
  );
}

function OwnName({ of }: { readonly of: string }) {
  const [typed, setTyped, forget] = useKept('name of this laptop', of);
  const rename = useAct(acts.nameServer, {});
  const isNew = typed.trim() !== '' && typed.trim() !== of;
  return (
    <>
      <Field label={WIRE_WORDS.howThisLaptopIsCalled} value={typed} onChange={setTyped} />
      {isNew ? (
        <Button
          type="outline"
          title={WIRE_WORDS.callItSo}
          loading={rename.isPending}
          onPress={() => rename.mutate({ name: typed.trim() }, { onSuccess: forget })}
        />
      ) : null}
      <Refusals issues={issuesOf(rename.error)} />
    </>
  );
}
