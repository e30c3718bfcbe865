import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { stationsAgainst, strangersIn, takeFound, type Taken } from '@ipsonomo/core/heard';
import { knownEdits } from '@ipsonomo/core/known';
import { formatMac, formatPrefix } from '@ipsonomo/core/net';
import { FOUND_MARKS } from '@ipsonomo/language';
import { KNOWN_WORDS } from '@ipsonomo/language/screens/known';
import { adaptersQuery, newId, useEdit, useJob, type Job } from '../../../data';
import { Notice, Page, Pick, Refusals, TwoColumns, useDraft, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { KnownGroups } from './KnownGroups';
import { readOfText, type Read } from './read';
import { Sources } from './Sources';

/** What is there already, as a capture or others know it, each held against the plan. */
export function KnownScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const [text, setText] = useDraft(`known elsewhere ${id}`);
  const [capture, setCapture] = useState<Read>();
  const typed = useMemo(() => (text.trim() === '' ? undefined : readOfText(text)), [text]);
  const read = capture ?? (typed?.ok ? typed.value : undefined);
  return (
    <Page maxWidth={1280}>
      <Words size="title" heading={1}>
        {KNOWN_WORDS.whatOthersKnow}
      </Words>
      <Words tone="second">{KNOWN_WORDS.leasesReservationsAndTools}</Words>
      <Refusals issues={issuesOf(error)} />
      <TwoColumns second={job && read ? <Against id={id} job={job} read={read} /> : null}>
        {capture ? (
          <Button
            type="outline"
            title={KNOWN_WORDS.otherThanCapture}
            onPress={() => setCapture(undefined)}
          />
        ) : (
          <Sources
            {...{ job: id, text, onText: setText, onCapture: setCapture }}
            refused={typed && !typed.ok ? [typed.error] : []}
          />
        )}
      </TwoColumns>
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
  const [openedAt] = useState(() => Date.now());
  const [done, setDone] = useState<Taken>();
  const [home, setHome] = useState<string>();
  const { data: adapters } = useQuery(adaptersQuery);
  const findings = useMemo(() => {
    // What this machine says itself stands in its captures too.
    const own = new Set(adapters?.map(({ mac }) => mac));
    const all = stationsAgainst(plan, read.stations);
    return all.filter(({ station: { mac } }) => mac === undefined || !own.has(formatMac(mac)));
  }, [adapters, plan, read]);
  const macs = knownEdits(doc, findings);
  const taken = useMemo(
    () =>
      takeFound(plan, strangersIn(findings), {
        ...{ source: read.source, now: openedAt, idOf: newId, words: FOUND_MARKS },
        ...(home === undefined ? {} : { subnetId: home }),
      }),
    [findings, home, openedAt, plan, read],
  );
  const takeMacs = () =>
    edit.mutate({ edits: macs, why: KNOWN_WORDS.takenFromElsewhere({ count: macs.length }) });
  const takeStrangers = () => {
    const { edits, devices, subnets } = taken;
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
      {!done && (taken.left.length > 0 || home !== undefined) ? (
        <>
          <Words tone="second">
            {KNOWN_WORDS.leftWithoutAddress({
              count: taken.left.length,
              subnets: plan.subnets.length,
            })}
          </Words>
          {plan.subnets.length > 1 ? (
            <Pick
              label={KNOWN_WORDS.whereTheyBelong}
              options={plan.subnets.map(({ id: value, name: title, prefix }) => ({
                ...{ value, title, detail: formatPrefix(prefix) },
              }))}
              value={home}
              onChange={setHome}
            />
          ) : null}
        </>
      ) : null}
      {taken.edits.length > 0 ? (
        <Button
          size="lg"
          type={macs.length > 0 ? 'outline' : 'solid'}
          title={KNOWN_WORDS.takeStrangers({ devices: taken.devices, subnets: taken.subnets })}
          loading={edit.isPending}
          onPress={takeStrangers}
        />
      ) : null}
      <KnownGroups {...{ id, job, read, findings }} />
    </>
  );
}
