import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { View } from 'react-native';
import { sourceWords } from '@ipsonomo/language';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import { acts, download, pathOf, reading, useAct, usePlan } from '../../data';
import { Card, Page, Refusals, Row, Words } from '../../parts';
import { Temporary } from '../prove';
import { issuesOf } from '../words';

/** The lists and the proof, to take away. */
export function HandOverScreen({ job }: { readonly job: string }) {
  const { view, plan } = usePlan(job);
  const hasPapers = plan?.kinds.some((kind) => kind.papers.length > 0) ?? false;
  const note = useAct(acts.noteHandOver, { job });
  const interfaces = view?.devices.flatMap((device) => device.interfaces) ?? [];
  const proven = interfaces.filter((at) => at.stage === 'proven').length;
  const save = () => {
    download(pathOf(acts.fetchAddresses, { job }));
    note.mutate();
  };
  return (
    <Page
      action={<Button size="lg" title={HAND_OVER_WORDS.downloadTheAddressList} onPress={save} />}
    >
      <Words size="title" heading={1}>
        {COMMON_WORDS.handOver}
      </Words>
      <Words tone="second">
        {view && view.left.handOver > 0
          ? HAND_OVER_WORDS.changeSinceTheListsWereLast({ handOver: view.left.handOver })
          : HAND_OVER_WORDS.nothingChangedSinceTheListsWere}
      </Words>
      <Refusals issues={issuesOf(note.error)} />
      {view ? <Temporary job={job} view={view} /> : null}
      <Card strong>
        <Words size="device" heading={2}>
          {HAND_OVER_WORDS.addressList}
        </Words>
        <Words size="second">
          {HAND_OVER_WORDS.oneLineForEachOfDevice({ interfaces: interfaces.length })}
        </Words>
        <Words size="second" tone={proven === interfaces.length && proven > 0 ? 'moss' : 'ochre'}>
          {HAND_OVER_WORDS.revisionOf({
            revision: view?.revision ?? 0,
            proven,
            interfaces: interfaces.length,
          })}
        </Words>
      </Card>
      <Card>
        <Words size="device" heading={2}>
          {HAND_OVER_WORDS.dhcpReservations}
        </Words>
        <Words size="second">{HAND_OVER_WORDS.forWhoeverAnswersDhcpInThe}</Words>
        <Button
          type="outline"
          title={HAND_OVER_WORDS.downloadTheReservations}
          onPress={() => download(pathOf(acts.fetchDhcp, { job }))}
        />
      </Card>
      <Card>
        <Words size="device" heading={2}>
          {COMMON_WORDS.thePlanItself}
        </Words>
        <Words size="second">{HAND_OVER_WORDS.everythingThatWasPlannedInAn}</Words>
        <Button
          type="outline"
          title={HAND_OVER_WORDS.downloadThePlan}
          onPress={() => download(pathOf(acts.fetchPlanFile, { job }))}
        />
        {hasPapers ? (
          <Button
            type="clear"
            title={HAND_OVER_WORDS.downloadItWithoutItsPapers}
            onPress={() => download(pathOf(acts.fetchPlanFile, { job }, { papers: 'named' }))}
          />
        ) : null}
      </Card>
      <Runs job={job} />
    </Page>
  );
}

function Runs({ job }: { readonly job: string }) {
  const { data: runs } = useQuery(reading(acts.listRuns, { job }));
  if (!runs || runs.length === 0)
    return <Words tone="second">{HAND_OVER_WORDS.capturesOfWhatWasSaidOn}</Words>;
  return (
    <View>
      <Words size="strong" heading={2}>
        {HAND_OVER_WORDS.whatWasSaidOnTheWire}
      </Words>
      {runs.map((run) => (
        <Row
          key={run.id}
          label={HAND_OVER_WORDS.captureOf({ startedAt: format(run.startedAt, 'd MMM HH:mm') })}
          onPress={() => download(pathOf(acts.fetchCapture, { job, run: run.id }))}
        >
          <Words size="strong">
            {HAND_OVER_WORDS.capture({ startedAt: format(run.startedAt, 'd MMM HH:mm') })}
          </Words>
          <Words size="second" tone="second">
            {HAND_OVER_WORDS.pcap({
              source: sourceWords(run.source),
              person: run.person,
              endedAt:
                run.endedAt === null
                  ? HAND_OVER_WORDS.stillListening
                  : HAND_OVER_WORDS.until({ endedAt: format(run.endedAt, 'HH:mm') }),
            })}
          </Words>
        </Row>
      ))}
    </View>
  );
}
