import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import {
  compareKnown,
  knownEdits,
  readKnown,
  type KnownFinding,
  type KnownVerdict,
} from '@ipsonomo/core/known';
import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import { KNOWN_WORDS } from '@ipsonomo/language/screens/known';
import { chooseFile, useEdit, useJob } from '../../../data';
import { LongField, Page, Refusals, Row, useDraft, Words } from '../../../parts';
import { issuesOf } from '../../words';

/** The worst first. */
const VERDICTS = [
  ...(['other-mac', 'other-address', 'stranger', 'unbound', 'by-name', 'as-planned'] as const),
] as const satisfies readonly KnownVerdict[];

const HEADS: Readonly<Record<KnownVerdict, string>> = {
  'other-mac': KNOWN_WORDS.anotherDeviceHasTheAddress,
  'other-address': KNOWN_WORDS.thePlannedDeviceHasAnotherAddress,
  stranger: KNOWN_WORDS.nobodyPlannedIt,
  unbound: KNOWN_WORDS.itsMacIsKnownNow,
  'by-name': KNOWN_WORDS.knownByItsName,
  'as-planned': KNOWN_WORDS.asPlanned,
};
const TONES: Readonly<Record<KnownVerdict, 'brick' | 'ochre' | 'ink' | 'moss'>> = {
  ...{ 'other-mac': 'brick', 'other-address': 'brick', stranger: 'ochre' },
  ...{ unbound: 'ink', 'by-name': 'ink', 'as-planned': 'moss' },
};

/** What others know already: leases, reservations, what a machine's tools print, each line held against the plan. */
export function KnownScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const edit = useEdit(id);
  const [text, setText, forget] = useDraft(`known elsewhere ${id}`);
  const read = useMemo(() => (text.trim() === '' ? undefined : readKnown(text)), [text]);
  const findings = useMemo(
    () => (job && read?.ok ? compareKnown(job.plan, read.value.entries) : []),
    [job, read],
  );
  const edits = job ? knownEdits(job.doc, findings) : [];
  const choose = async () => {
    const file = await chooseFile('.leases,.conf,.csv,.json,.txt,.log');
    if (file) setText(await file.text());
  };
  const take = () =>
    edit.mutate(
      { edits, why: KNOWN_WORDS.takenFromElsewhere({ count: edits.length }) },
      { onSuccess: forget },
    );
  return (
    <Page
      action={
        edits.length > 0 ? (
          <Button
            size="lg"
            title={KNOWN_WORDS.takeMacs({ count: edits.length })}
            loading={edit.isPending}
            onPress={take}
          />
        ) : null
      }
    >
      <Words size="title" heading={1}>
        {KNOWN_WORDS.whatOthersKnow}
      </Words>
      <Words tone="second">{KNOWN_WORDS.leasesReservationsAndTools}</Words>
      <Button type="outline" title={KNOWN_WORDS.chooseAFile} onPress={() => void choose()} />
      <LongField label={KNOWN_WORDS.orPasteItHere} value={text} onChange={setText} />
      <Refusals issues={read && !read.ok ? [read.error] : issuesOf(error ?? edit.error)} />
      {read?.ok ? (
        <Words size="strong">
          {KNOWN_WORDS.readAs({ kind: read.value.kind, count: read.value.entries.length })}
        </Words>
      ) : null}
      {VERDICTS.map((verdict) => (
        <Group
          key={verdict}
          {...{ id, verdict }}
          findings={findings.filter((one) => one.verdict === verdict)}
        />
      ))}
    </Page>
  );
}

interface GroupProps {
  readonly id: string;
  readonly verdict: KnownVerdict;
  readonly findings: readonly KnownFinding[];
}

function Group({ id, verdict, findings }: GroupProps) {
  const router = useRouter();
  if (findings.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2} tone={TONES[verdict]}>
        {HEADS[verdict]} · {findings.length}
      </Words>
      {findings.map((one) => {
        const { planned, entry } = one;
        const title = planned?.device.title ?? (entry.name || KNOWN_WORDS.withoutAName);
        return (
          <Row
            key={`${entry.line} ${entry.address}`}
            label={title}
            onPress={
              planned ? () => router.navigate(`/job/${id}/call/${planned.at.id}`) : undefined
            }
          >
            <Words size="strong">{title}</Words>
            <Words size="second">{saidOf(one)}</Words>
          </Row>
        );
      })}
    </View>
  );
}

/** What is said of it, and what is planned where that is another thing. */
function saidOf({ entry, planned, verdict }: KnownFinding): string {
  const said = [
    entry.address === undefined ? '' : formatIpv4(entry.address),
    entry.mac === undefined ? '' : formatMac(entry.mac),
    entry.name,
  ]
    .filter(Boolean)
    .join(' · ');
  const line = KNOWN_WORDS.lineOfIt({ line: entry.line, said });
  if (!planned || verdict === 'as-planned') return line;
  const mac = planned.at.mac === undefined ? KNOWN_WORDS.noMacYet : formatMac(planned.at.mac);
  return `${line} ${KNOWN_WORDS.planned({ address: formatIpv4(planned.at.address), mac })}`;
}
