import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import Svg from 'react-native-svg';
import { verdictWords } from '@ipsonomo/language';
import { formatIpv4 } from '@ipsonomo/core/net';
import {
  drawnRoute,
  foldedPicture,
  isLarge,
  pictureOf,
  placed,
  type Lane,
  type Picture,
} from '@ipsonomo/core/picture';
import type { Plan } from '@ipsonomo/core/plan';
import type { ProofKind } from '@ipsonomo/core/proof';
import { predict, PreparedNet, routeNetOf } from '@ipsonomo/core/routes';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { JOINER_WORDS, PICTURE_WORDS } from '@ipsonomo/language/screens/picture';
import { ROUTES_WORDS } from '@ipsonomo/language/screens/routes';
import { saveText, useJob, useWire } from '../../../data';
import { AddressText, LongList, Notice, Page, Pick, Refusals, Row, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { findingsOf } from '../../prove';
import { interfaceOptions, issuesOf } from '../../words';
import { Mark, SitePicture } from './SitePicture';

/** The site as it is connected; two are chosen, and the way there and back is drawn. */
export function PictureScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const { now } = useWire();
  const wide = useWide();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const picture = useMemo(() => (job ? pictureOf(job.plan) : undefined), [job]);
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const layout = useMemo(
    () => (picture ? placed(foldedPicture(picture, open, chosen)) : undefined),
    [picture, open, chosen],
  );
  const marks = useMemo(
    () =>
      new Map<string, ProofKind>(
        job ? findingsOf(job.plan, job.view, now).map((one) => [one.at.id, one.outcome.kind]) : [],
      ),
    // A mark that turns old may wait for the next look.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [job],
  );
  const way = useMemo(() => (job ? wayOf(job.plan, chosen) : undefined), [job, chosen]);
  const press = (at: string) =>
    setChosen(chosen.length === 1 && chosen[0] !== at ? [...chosen, at] : [at]);
  const fold = (at: string) =>
    setOpen(new Set(open.has(at) ? [...open].filter((one) => one !== at) : [...open, at]));
  const drawn = { marks, chosen, open, onPress: press, onFold: fold, route: way?.route };
  const [isSaving, setSaving] = useState(false);
  const name = job?.view.name ?? '';
  const save = (drawing: View | null) => {
    if (!drawing) return;
    savePicture(name);
    setSaving(false);
  };
  return (
    <Page maxWidth={1600}>
      <Words size="title" heading={1}>
        {COMMON_WORDS.theSiteAsItIsConnected}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {job && picture && layout ? (
        <>
          <Chosen {...{ id, plan: job.plan, chosen, setChosen, way }} />
          {wide && isLarge(picture) ? (
            <Words size="second" tone="second">
              {PICTURE_WORDS.aLargeSiteTheDevicesOf}
            </Words>
          ) : null}
          {wide ? (
            <SitePicture {...drawn} picture={layout} />
          ) : (
            <OneLane {...{ picture, marks, chosen, onPress: press }} />
          )}
          <Button
            type="outline"
            containerStyle={{ alignSelf: 'flex-start' }}
            title={PICTURE_WORDS.saveThePictureAsSvg}
            onPress={() => setSaving(true)}
          />
          {isSaving ? (
            <View ref={save} style={{ display: 'none' }}>
              <SitePicture {...drawn} picture={layout} wholeAs={PICTURE_ID} />
            </View>
          ) : null}
        </>
      ) : null}
    </Page>
  );
}

const PICTURE_ID = 'site-picture';

/** With its marks and its way; the whole of it is drawn only to be saved. */
function savePicture(name: string): void {
  const svg = globalThis.document?.getElementById(PICTURE_ID);
  if (!svg) return;
  const copy = svg.cloneNode(true) as Element;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  saveText(`${name}.svg`, 'image/svg+xml', new XMLSerializer().serializeToString(copy));
}

function wayOf(plan: Plan, [from, to]: readonly string[]) {
  const devices = new Map(
    plan.devices.flatMap((device) =>
      device.interfaces.map((at) => [at.id, { device, at }] as const),
    ),
  );
  const [one, other] = [devices.get(from ?? ''), devices.get(to ?? '')];
  if (!one || !other) return undefined;
  const net = new PreparedNet(routeNetOf(plan));
  const host = net.host(one.device.id);
  if (!host) return undefined;
  const answer = predict(net, {
    ...{ from: host, to: other.at.address, meant: net.host(other.device.id) },
  });
  return {
    route: drawnRoute(answer),
    works: answer.verdict.works,
    ...verdictWords(answer.verdict),
    link: `there-and-back?from=${one.device.id}&to=${other.at.id}`,
  };
}

interface ChosenProps {
  readonly id: string;
  readonly plan: Plan;
  readonly chosen: readonly string[];
  readonly setChosen: (chosen: readonly string[]) => void;
  readonly way: ReturnType<typeof wayOf>;
}

function Chosen({ id, plan, chosen, setChosen, way }: ChosenProps) {
  const router = useRouter();
  const options = interfaceOptions(plan);
  const [from = '', to = ''] = chosen;
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 12, maxWidth: 720 }}>
        <View style={{ flex: 1 }}>
          <Pick
            label={ROUTES_WORDS.from2}
            options={options}
            value={from}
            onChange={(next) => setChosen(to ? [next, to] : [next])}
          />
        </View>
        <View style={{ flex: 1 }}>
          <Pick
            label={ROUTES_WORDS.to2}
            options={options}
            value={to}
            onChange={(next) => setChosen([from, next])}
          />
        </View>
      </View>
      {way ? (
        <Notice tone={way.works ? 'moss' : 'brick'} title={way.title}>
          <Words size="second">{way.text || PICTURE_WORDS.thereIsDrawnThroughBackIs}</Words>
          <Button
            type="clear"
            containerStyle={{ alignSelf: 'flex-start' }}
            title={ROUTES_WORDS.stepByStep}
            onPress={() => router.navigate(`/job/${id}/${way.link}`)}
          />
        </Notice>
      ) : null}
    </>
  );
}

interface OneLaneProps {
  readonly picture: Picture;
  readonly marks: ReadonlyMap<string, ProofKind>;
  readonly chosen: readonly string[];
  readonly onPress: (interfaceId: string) => void;
}

/** A joiner of more lanes than these has no button for each. */
const MOST_WAYS = 7;

/** On a phone: one lane, what is in it and what joins it to others. */
function OneLane({ picture, marks, chosen, onPress }: OneLaneProps) {
  const [wanted, setWanted] = useState('');
  const lane = picture.lanes.find(({ subnetId }) => subnetId === wanted) ?? picture.lanes[0];
  if (!lane) return null;
  const joining = picture.joiners.filter(({ lanes }) => lanes.includes(lane.subnetId));
  return (
    <>
      <Pick
        label={PICTURE_WORDS.lane}
        options={picture.lanes.map(({ subnetId, name }) => ({ value: subnetId, title: name }))}
        value={lane.subnetId}
        onChange={setWanted}
      />
      {joining.map(({ id, title, kind, lanes }) => (
        <View key={id} style={{ gap: 6 }}>
          <Words size="strong">
            {title} · {JOINER_WORDS[kind]}
          </Words>
          {lanes.length > MOST_WAYS ? (
            <Words size="second" tone="second">
              {PICTURE_WORDS.joinsLanesChooseOneAbove({ lanes: lanes.length })}
            </Words>
          ) : (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
              {lanes
                .filter((one) => one !== lane.subnetId)
                .map((one) => (
                  <Button
                    key={one}
                    type="outline"
                    title={`→ ${picture.lanes.find(({ subnetId }) => subnetId === one)?.name ?? ''}`}
                    onPress={() => setWanted(one)}
                  />
                ))}
            </View>
          )}
        </View>
      ))}
      <LaneRows {...{ lane, marks, chosen, onPress }} />
    </>
  );
}

function LaneRows({
  lane,
  marks,
  chosen,
  onPress,
}: Omit<OneLaneProps, 'picture'> & { lane: Lane }) {
  return (
    <LongList
      items={lane.devices}
      keyOf={({ interfaceId }) => interfaceId}
      render={({ interfaceId, title, address }) => (
        <Row
          label={title}
          selected={chosen.includes(interfaceId)}
          onPress={() => onPress(interfaceId)}
        >
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
            <Svg width={16} height={16} viewBox="0 0 16 16">
              <Mark mark={marks.get(interfaceId) ?? 'not-asked'} />
            </Svg>
            <View style={{ flex: 1 }}>
              <Words size="strong" lines={1}>
                {title}
              </Words>
            </View>
            <AddressText address={formatIpv4(address)} length={lane.length} still />
          </View>
        </Row>
      )}
    />
  );
}
