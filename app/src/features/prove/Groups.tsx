import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/language';
import { findSubnet, findDoc, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { foundKey, type CheckName } from '@ipsonomo/core/proof';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { useEdit } from '../../data';
import { AddressText, Card, LongList, Row, StageNotches, timeOf, Words } from '../../parts';
import { useWide } from '../../theme';
import { Claimants } from './Claimants';
import type { Finding } from './findings';
import { DifferenceLine, Settle } from './Settle';
import { Together } from './Together';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly title: string;
  readonly findings: readonly Finding[];
}

/** About so high, before it is drawn. */
const CARD_HEIGHT = 220;

const lengthIn = (plan: Plan, { at }: Finding): number =>
  findSubnet(plan, at.subnetId)?.prefix.length ?? 24;

function Group({
  title,
  count,
  children,
}: {
  readonly title: string;
  readonly count: number;
  readonly children: React.ReactNode;
}) {
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {title} · {count}
      </Words>
      {children}
    </View>
  );
}

/** Devices in which something is other than planned, each value with its outcomes. */
export function Contradicted(props: Props) {
  const { job, plan, doc, title, findings } = props;
  const router = useRouter();
  if (findings.length === 0) return null;
  return (
    <Group title={title} count={findings.length}>
      <Together {...props} />
      <LongList
        items={findings}
        height={CARD_HEIGHT}
        keyOf={({ at }) => at.id}
        render={(finding) => {
          const { device, at, outcome } = finding;
          const differences = outcome.kind === 'contradicted' ? outcome.differences : [];
          return (
            <View style={{ paddingBottom: 8 }}>
              <Card>
                <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
                  <View style={{ flex: 1 }}>
                    <Words size="strong">{device.title}</Words>
                    <Words size="caption" tone="second">
                      {at.check ? timeOf(at.check.at) : ''}
                    </Words>
                  </View>
                  <AddressText address={at.address} length={lengthIn(plan, finding)} />
                </View>
                {differences.map((difference) => (
                  <View key={difference.what + difference.expected} style={{ gap: 8 }}>
                    <DifferenceLine difference={difference} />
                    {difference.what === 'several' || difference.what === 'mac' ? (
                      <Claimants plan={plan} found={difference.found} />
                    ) : null}
                    <Settle {...{ job, plan, doc, planned: finding.planned, difference }} />
                  </View>
                ))}
                <Button
                  type="clear"
                  containerStyle={{ alignSelf: 'flex-start' }}
                  title={PROVE_WORDS.whyMayItBeSo}
                  accessibilityLabel={PROVE_WORDS.likelyCauses({ title: device.title })}
                  onPress={() => router.navigate(`/job/${job}/causes/${at.id}`)}
                />
              </Card>
            </View>
          );
        }}
      />
    </Group>
  );
}

/** What stays otherwise with a reason; the reason can be taken back. */
export function Accepted({ job, plan, doc, findings }: Omit<Props, 'title'>) {
  const edit = useEdit(job);
  if (findings.length === 0) return null;
  return (
    <Group title={PROVE_WORDS.staysOtherwiseWithAReason} count={findings.length}>
      {findings.map(({ device, at, outcome }) =>
        (outcome.kind === 'accepted' ? outcome.accepted : []).map((difference) => {
          const key = foundKey(at.id, difference);
          const acceptance = plan.acceptances.find((one) => one.key === key);
          const thing = acceptance && findDoc(doc, 'acceptance', acceptance.id);
          return (
            <Card key={key}>
              <Words size="strong">{device.title}</Words>
              <DifferenceLine difference={difference} />
              <Words size="second">
                {acceptance ? `${acceptance.reason} (${acceptance.person})` : ''}
              </Words>
              {thing ? (
                <Button
                  type="clear"
                  title={PROVE_WORDS.takeTheReasonBack}
                  onPress={() =>
                    edit.mutate({
                      edits: [{ op: 'remove', type: 'acceptance', thing }],
                      why: PROVE_WORDS.noLongerAccepted({ title: device.title }),
                    })
                  }
                />
              ) : null}
            </Card>
          );
        }),
      )}
    </Group>
  );
}

const CHECK_WORDS: Readonly<Record<CheckName, string>> = {
  arp: 'ARP',
  ping: 'ping',
  name: PROVE_WORDS.itsName,
  identity: PROVE_WORDS.whoItIs,
  services: PROVE_WORDS.itsServices,
};

/** What a row says of a device that is not contradicted. */
function wordsOf({ at: { check }, outcome }: Finding): string {
  const said = check ? `${evidenceWords(check)} · ${timeOf(check.at)}` : '';
  if (outcome.kind === 'not-asked' && check)
    return PROVE_WORDS.notAskedFor({
      said,
      value: outcome.checks.map((one) => CHECK_WORDS[one]).join(', '),
    });
  return said;
}

const MARKS = { proven: '✓ ', silent: '× ', stale: '! ', 'not-asked': '' } as const;
const TONES = { proven: 'moss', silent: 'brick', stale: 'ochre', 'not-asked': 'second' } as const;

/** Devices of which one line tells all. */
export function Plain({
  job,
  plan,
  title,
  findings,
  causes = false,
}: Omit<Props, 'doc'> & {
  /** Pressed, it is asked why. */
  readonly causes?: boolean;
}) {
  const router = useRouter();
  const wide = useWide();
  if (findings.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        {title} · {findings.length}
      </Words>
      <LongList
        items={findings}
        keyOf={({ at }) => at.id}
        render={(finding) => {
          const { device, at, outcome } = finding;
          const kind = outcome.kind as keyof typeof MARKS;
          const words = wordsOf(finding);
          const said = words ? (
            <Words size="second" tone={TONES[kind]} {...(wide ? { lines: 1 } : {})}>
              {MARKS[kind]}
              {words}
            </Words>
          ) : null;
          const notches = <StageNotches notches={at.notches} />;
          const where = causes ? 'causes' : 'call';
          return (
            <Row
              label={device.title}
              onPress={() => router.navigate(`/job/${job}/${where}/${at.id}`)}
            >
              <View style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
                <View style={{ flex: 2, gap: 3 }}>
                  <Words size="strong" lines={1}>
                    {device.title}
                  </Words>
                  {wide ? null : notches}
                </View>
                {wide ? <View style={{ flex: 4 }}>{said}</View> : null}
                <View style={wide ? { width: 150 } : null}>
                  <AddressText address={at.address} length={lengthIn(plan, finding)} still />
                </View>
                {wide ? notches : null}
              </View>
              {wide ? null : said}
            </Row>
          );
        }}
      />
    </View>
  );
}
