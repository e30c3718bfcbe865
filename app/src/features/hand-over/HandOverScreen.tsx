import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { View } from 'react-native';
import { sourceWords } from '@ipsonomo/language';
import { STAGES } from '@ipsonomo/core/plan';
import { acts, download, pathOf, reading, useAct, usePlan } from '../../data';
import { Card, Page, Refusals, Row, Words } from '../../parts';
import { Temporary } from '../prove';
import { issuesOf, plural } from '../words';

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
    <Page action={<Button size="lg" title="Download the address list" onPress={save} />}>
      <Words size="title" heading={1}>
        Hand over
      </Words>
      <Words tone="second">
        {view && view.left.handOver > 0
          ? `${plural(view.left.handOver, 'change')} since the lists were last handed over.`
          : 'Nothing changed since the lists were last handed over.'}
      </Words>
      <Refusals issues={issuesOf(note.error)} />
      {view ? <Temporary job={job} view={view} /> : null}
      <Card strong>
        <Words size="device" heading={2}>
          Address list
        </Words>
        <Words size="second">
          One line for each of {plural(interfaces.length, 'device')}: names, place, kind, address,
          mask, gateway, MAC, way, and how far it is seen to be. CSV, for any spreadsheet.
        </Words>
        <Words size="second" tone={proven === interfaces.length && proven > 0 ? 'moss' : 'ochre'}>
          Revision {view?.revision ?? 0} · {proven} of {interfaces.length} {STAGES.at(-1)}
        </Words>
      </Card>
      <Card>
        <Words size="device" heading={2}>
          DHCP reservations
        </Words>
        <Words size="second">
          For whoever answers DHCP in the plant: by MAC, by name and by switch port, as the
          configuration of dnsmasq.
        </Words>
        <Button
          type="outline"
          title="Download the reservations"
          onPress={() => download(pathOf(acts.fetchDhcp, { job }))}
        />
      </Card>
      <Card>
        <Words size="device" heading={2}>
          The plan itself
        </Words>
        <Words size="second">
          Everything that was planned, in an open format: to keep, to compare, to begin another job
          with.
        </Words>
        <Button
          type="outline"
          title="Download the plan"
          onPress={() => download(pathOf(acts.fetchPlanFile, { job }))}
        />
        {hasPapers ? (
          <Button
            type="clear"
            title="Download it without its papers"
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
    return (
      <Words tone="second">
        Captures of what was said on the wire come here once somebody listened.
      </Words>
    );
  return (
    <View>
      <Words size="strong" heading={2}>
        What was said on the wire
      </Words>
      {runs.map((run) => (
        <Row
          key={run.id}
          label={`capture of ${format(run.startedAt, 'd MMM HH:mm')}`}
          onPress={() => download(pathOf(acts.fetchCapture, { job, run: run.id }))}
        >
          <Words size="strong">Capture, {format(run.startedAt, 'd MMM HH:mm')}</Words>
          <Words size="second" tone="second">
            {sourceWords(run.source)} · {run.person} ·{' '}
            {run.endedAt === null ? 'still listening' : `until ${format(run.endedAt, 'HH:mm')}`} ·
            pcap
          </Words>
        </Row>
      ))}
    </View>
  );
}
