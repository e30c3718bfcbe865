import { Button } from '@rneui/themed';
import { useMemo, useState } from 'react';
import { stationsAgainst, strangersIn, takeFound, type Taken } from '@ipsonomo/core/heard';
import { knownEdits } from '@ipsonomo/core/known';
import { FOUND_MARKS } from '@ipsonomo/language';
import { KNOWN_WORDS } from '@ipsonomo/language/screens/known';
import { newId, useEdit, useJob, type Job } from '../../../data';
import { Notice, Page, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { KnownGroups } from './KnownGroups';
import type { Read } from './read';
import { Sources } from './Sources';

/** What is there already, as a capture or others know it, each held against the plan. */
export function KnownScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const [read, setRead] = useState<Read>();
  return (
    <Page>
      <Words size="title" heading={1}>
        {KNOWN_WORDS.whatOthersKnow}
      </Words>
      <Words tone="second">{KNOWN_WORDS.leasesReservationsAndTools}</Words>
      <Refusals issues={issuesOf(error)} />
      <Sources job={id} isRead={read !== undefined} onRead={setRead} />
      {job && read ? <Against id={id} job={job} read={read} /> : null}
    </Page>
  );
}

interface AgainstProps {
  readonly id: string;
  readonly job: Job;
  readonly read: Read;
}

function Against({ id, job, read }: AgainstProps) {
  const { plan, doc } = job;
  const edit = useEdit(id);
  const [done, setDone] = useState<Taken>();
  const findings = useMemo(() => stationsAgainst(plan, read.stations), [plan, read]);
  const macs = knownEdits(doc, findings);
  const strangers = strangersIn(findings);
  const takeMacs = () =>
    edit.mutate({ edits: macs, why: KNOWN_WORDS.takenFromElsewhere({ count: macs.length }) });
  const takeStrangers = () => {
    const taken = takeFound(plan, strangers, {
      ...{ source: read.source, now: Date.now(), idOf: newId, words: FOUND_MARKS },
    });
    const { edits, devices, subnets } = taken;
    if (edits.length === 0) return setDone(taken);
    edit.mutate(
      { edits, why: KNOWN_WORDS.tookStrangers({ devices, subnets, source: read.source }) },
      { onSuccess: () => setDone(taken) },
    );
  };
  return (
    <>
      <Words size="strong">{read.head}</Words>
      {read.isCut ? <Notice tone="ochre" title={KNOWN_WORDS.cutFile} /> : null}
      {done ? (
        <Notice
          tone={done.devices > 0 ? 'moss' : 'ochre'}
          title={KNOWN_WORDS.tookAndLeft({
            ...{ devices: done.devices, subnets: done.subnets, left: done.left.length },
          })}
        />
      ) : null}
      <Refusals issues={issuesOf(edit.error)} />
      {macs.length > 0 ? (
        <Button
          size="lg"
          title={KNOWN_WORDS.takeMacs({ count: macs.length })}
          loading={edit.isPending}
          onPress={takeMacs}
        />
      ) : null}
      {strangers.length > 0 ? (
        <Button
          size="lg"
          type={macs.length > 0 ? 'outline' : 'solid'}
          title={KNOWN_WORDS.takeStrangers({ devices: strangers.length })}
          loading={edit.isPending}
          onPress={takeStrangers}
        />
      ) : null}
      <KnownGroups {...{ id, job, read, findings }} />
    </>
  );
}
