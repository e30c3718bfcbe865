import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { HeardStation, StationFinding } from '@ipsonomo/core/heard';
import { addressEdits, type KnownVerdict } from '@ipsonomo/core/known';
import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import { KNOWN_WORDS } from '@ipsonomo/language/screens/known';
import { useEdit, type Job } from '../../../data';
import { LongList, Refusals, Row, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { Settle } from '../Settle';
import type { Read } from './read';

/** The worst first. */
const VERDICTS: readonly KnownVerdict[] = [
  ...(['other-mac', 'other-address', 'stranger', 'unbound', 'by-name'] as const),
  ...(['as-planned', 'infrastructure'] as const),
];

const HEADS: Readonly<Record<KnownVerdict, string>> = {
  'other-mac': KNOWN_WORDS.anotherDeviceHasTheAddress,
  'other-address': KNOWN_WORDS.thePlannedDeviceHasAnotherAddress,
  stranger: KNOWN_WORDS.nobodyPlannedIt,
  unbound: KNOWN_WORDS.itsMacIsKnownNow,
  'by-name': KNOWN_WORDS.knownByItsName,
  'as-planned': KNOWN_WORDS.asPlanned,
  infrastructure: KNOWN_WORDS.servesASubnet,
};
const TONES: Readonly<Record<KnownVerdict, 'brick' | 'ochre' | 'ink' | 'moss'>> = {
  ...{ 'other-mac': 'brick', 'other-address': 'brick', stranger: 'ochre' },
  ...{ unbound: 'ink', 'by-name': 'ink', 'as-planned': 'moss' },
  infrastructure: 'moss',
};

interface Props {
  readonly id: string;
  readonly job: Job;
  readonly read: Read;
  readonly findings: readonly StationFinding[];
}

/** About as high as one line is. */
const LINE = 64;

/** What each comes to; where plan and site differ, a person says which is right. */
export function KnownGroups(props: Props) {
  return VERDICTS.map((verdict) => {
    const findings = props.findings.filter((one) => one.verdict === verdict);
    if (findings.length === 0) return null;
    return (
      <View key={verdict}>
        <Words size="strong" heading={2} tone={TONES[verdict]}>
          {HEADS[verdict]} · {findings.length}
        </Words>
        <LongList
          items={findings}
          keyOf={({ place, entry: { address } }) => `${place} ${address}`}
          height={LINE}
          render={(finding) => <Line {...props} finding={finding} />}
        />
      </View>
    );
  });
}

interface LineProps extends Props {
  readonly finding: StationFinding;
}

function Line({ id, job, read, finding }: LineProps) {
  const router = useRouter();
  const { planned, entry, verdict } = finding;
  const title = titleOf(finding);
  return (
    <View style={{ gap: 6 }}>
      <Row
        label={title}
        onPress={planned ? () => router.navigate(`/job/${id}/call/${planned.at.id}`) : undefined}
      >
        <Words size="strong">{title}</Words>
        <Words size="second">{saidOf(read, finding)}</Words>
      </Row>
      {planned && verdict === 'other-mac' && entry.mac !== undefined ? (
        <Settle
          {...{ job: id, plan: job.plan, doc: job.doc, planned }}
          difference={{
            what: 'mac',
            expected: planned.at.mac === undefined ? '' : formatMac(planned.at.mac),
            found: formatMac(entry.mac),
          }}
        />
      ) : null}
      {verdict === 'other-address' ? <OtherAddress {...{ id, job, finding }} /> : null}
    </View>
  );
}

/** The planned device, elsewhere: the plan takes where it is, or it is put right on its call. */
function OtherAddress({ id, job, finding }: Pick<LineProps, 'id' | 'job' | 'finding'>) {
  const router = useRouter();
  const edit = useEdit(id);
  const { planned, entry } = finding;
  if (!planned || entry.address === undefined) return null;
  const { title } = planned.device;
  const edits = addressEdits(job.plan, job.doc, planned, entry.address);
  const take = () => {
    const address = formatIpv4(entry.address as never);
    edit.mutate({ edits, why: KNOWN_WORDS.tookAddress({ title, address }) });
  };
  return (
    <View style={{ gap: 6 }}>
      <Refusals issues={issuesOf(edit.error)} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {edits.length > 0 ? (
          <Button
            type="outline"
            title={KNOWN_WORDS.planTheFoundAddress({ address: formatIpv4(entry.address) })}
            loading={edit.isPending}
            onPress={take}
          />
        ) : null}
        <Button
          type="outline"
          title={KNOWN_WORDS.theDeviceIsWrong}
          accessibilityLabel={`${title}: ${KNOWN_WORDS.theDeviceIsWrong}`}
          onPress={() => router.navigate(`/job/${id}/call/${planned.at.id}`)}
        />
      </View>
    </View>
  );
}

const asksWords = ({ asks: protocol, vendorClass }: HeardStation): string => {
  if (protocol === undefined) return '';
  return vendorClass === ''
    ? KNOWN_WORDS.asksBy({ protocol })
    : KNOWN_WORDS.asksByAs({ protocol, vendorClass });
};

/** By what a person knows it: who has neither name nor MAC was told by its address alone. */
const titleOf = ({ planned, entry, station }: StationFinding): string =>
  planned?.device.title ??
  [
    ...[entry.name, station.identity?.name, entry.mac === undefined ? '' : formatMac(entry.mac)],
    entry.address === undefined ? '' : formatIpv4(entry.address),
  ].find((one) => one !== undefined && one !== '') ??
  '';

/** What is said of it, and what is planned where that is another thing. */
function saidOf(read: Read, finding: StationFinding): string {
  const { entry, planned, verdict, place, station } = finding;
  const title = titleOf(finding);
  const said = [
    entry.address === undefined ? KNOWN_WORDS.withoutAnAddress : formatIpv4(entry.address),
    entry.mac === undefined ? '' : formatMac(entry.mac),
    entry.name,
    station.identity?.name ?? '',
    asksWords(station),
  ];
  const line = read.placeWords(
    place,
    [...new Set(said)].filter((one) => one !== '' && one !== title).join(' · '),
  );
  if (!planned || verdict === 'as-planned') return line;
  const mac = planned.at.mac === undefined ? KNOWN_WORDS.noMacYet : formatMac(planned.at.mac);
  return `${line} ${KNOWN_WORDS.planned({ address: formatIpv4(planned.at.address), mac })}`;
}
