import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { memo, useMemo, useState } from 'react';
import { View } from 'react-native';
import type { HeardView, JobView } from '@ipsonomo/core/api';
import { noticeWords, WAY_WORDS } from '@ipsonomo/language';
import { isAsking, oncePer, type Plan } from '@ipsonomo/core/plan';
import { AT_IT_WORDS } from '@ipsonomo/language/screens/at-it';
import { ASSIGN_WORDS } from '@ipsonomo/language/screens/assign';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import {
  acts,
  isListening,
  useAct,
  useField,
  useHeard,
  usePlan,
  useTimeThereOf,
  useWire,
} from '../../../data';
import {
  AddressText,
  Beside,
  Card,
  DeviceRow,
  dueOf,
  LongList,
  Notice,
  Page,
  Refusals,
  Row,
  StageNotches,
  Words,
} from '../../../parts';
import { useWide } from '../../../theme';
import { Call, useCallsSoon } from '../call/Call';
import { agoWords, issuesOf, lengthOf, placeOf } from '../../words';
import { Clock } from '../../Clock';
import { NarrowField, useNarrowed } from '../../narrow';
import { awaitedOf, HeardBook, loanEndsOf, type Awaited, type HeardOffer } from './awaited';
import { ExpectServer } from './ExpectServer';
import { HeardLine } from './HeardLine';
import { LaptopReminder } from './LaptopReminder';
import { useTakenCall } from '../at-it/use-taken-call';
import { OrderRow } from './OrderRow';
import { RoundHead } from './RoundHead';
import { useRound, type Round } from './use-round';

interface Props {
  readonly job: string;
  /** The interface whose call stands beside this list. */
  readonly selected?: string;
  /** To what its list is narrowed down from the first. */
  readonly narrow?: string | undefined;
}

const NOBODY: readonly HeardView[] = [];

/** What is awaited, next one first, with what was heard offered to it. */
export function AssignScreen({ job, selected, narrow }: Props) {
  const wide = useWide();
  const { view, plan, error } = usePlan(job);
  const heard = useHeard();
  const field = useField();
  const listening = isListening(field);
  const clients = listening ? heard : NOBODY;
  const round = useRound(job);
  const { order } = round;
  const [isOrdering, setOrdering] = useState(false);
  useCallsSoon();
  const loanEnds = useMemo(() => (view ? loanEndsOf(view) : []), [view]);
  const now = useTimeThereOf(loanEnds);
  const all = useMemo(() => (view ? awaitedOf(view, order, now) : []), [view, order, now]);
  const narrowed = useNarrowed(`narrow calls ${job}`, plan, view, narrow);
  const awaited = useMemo(
    () => (narrowed.only ? all.filter(({ at }) => narrowed.only?.has(at.id)) : all),
    [all, narrowed.only],
  );
  const book = useMemo(
    () => (view && plan ? new HeardBook(view, plan, clients) : undefined),
    [view, plan, clients],
  );
  // In an order that stays: a line that jumps is missed by the thumb.
  const strangers = useMemo(
    () => (book?.strangers ?? NOBODY).toSorted((a, b) => b.firstAt - a.firstAt),
    [book],
  );
  const [next, ...rest] = awaited;
  const shown = selected ?? next?.at.id;
  const action = listening && (wide || !next) ? undefined : <ListenAction job={job} next={next} />;
  const list = (
    <Page action={action}>
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {all.length === 0
            ? ASSIGN_WORDS.nothingLeftToAssign
            : ASSIGN_WORDS.callLeft({ awaited: all.length })}
        </Words>
        <Words tone="second">
          <Clock>{(at) => situation(listening, clients, at)}</Clock>
        </Words>
      </View>
      <Refusals issues={issuesOf(error)} />
      <Notices {...{ job, plan }} />
      <LaptopReminder />
      {all.length > 1 || narrowed.only ? (
        <NarrowField {...{ narrowed }} shown={awaited.length} of={all.length} />
      ) : null}
      {view && book && next && !wide && !isOrdering ? (
        <NextCall {...{ job, view, book, next }} />
      ) : null}
      {plan ? <RoundHead {...{ job, plan, round, isOrdering }} onOrdering={setOrdering} /> : null}
      {isOrdering ? <OrderList {...{ awaited, round }} /> : null}
      {view && book && !isOrdering ? (
        <AwaitedList
          {...{ job, view, book, wide }}
          awaited={wide ? awaited : rest}
          selected={wide ? shown : undefined}
        />
      ) : null}
      <Strangers strangers={strangers} />
    </Page>
  );
  // Beside one that was chosen, or where there is no room.
  if (selected !== undefined || !wide) return list;
  return (
    <Beside main="list" list={list}>
      {shown === undefined ? null : <Call key={shown} job={job} id={shown} />}
    </Beside>
  );
}

function situation(listening: boolean, heard: readonly HeardView[], now: number): string {
  if (!listening) return ASSIGN_WORDS.nobodyListensOnTheWireYet;
  const last = Math.max(0, ...heard.map((one) => one.lastAt));
  if (last === 0) return ASSIGN_WORDS.listeningNothingHasAskedYetPower;
  return ASSIGN_WORDS.listeningDeviceAskedTheLast({
    heard: heard.length,
    last: agoWords(last, now),
  });
}

/** The one thing to do: choose a wire, listen, or go to the next call. */
function ListenAction({ job, next }: { readonly job: string; readonly next: Awaited | undefined }) {
  const router = useRouter();
  const field = useField();
  const listen = useAct(acts.listen, { job });
  if (field?.source === null)
    return (
      <Button
        size="lg"
        title={ASSIGN_WORDS.chooseTheWire}
        onPress={() => router.navigate(`/job/${job}/wire`)}
      />
    );
  if (field && !isListening(field))
    return (
      <>
        <Refusals issues={issuesOf(listen.error)} />
        <Button
          size="lg"
          title={COMMON_WORDS.startListening}
          loading={listen.isPending}
          onPress={() => listen.mutate()}
        />
      </>
    );
  if (!next) return null;
  return (
    <Button
      size="lg"
      title={ASSIGN_WORDS.goTo({ title: next.device.title })}
      onPress={() => router.navigate(`/job/${job}/call/${next.at.id}`)}
    />
  );
}

/** Notices of the wire that bear on assigning. */
function Notices({ job, plan }: { readonly job: string; readonly plan: Plan | undefined }) {
  const { field, now } = useWire();
  const read = useAct(acts.readNotice, { job });
  return field?.notices
    .filter(({ at, stays }) => stays || now - at < 10 * 60_000)
    .map((notice) => (
      <View key={notice.code + notice.at} style={{ gap: 6 }}>
        <Notice tone={NOTICE_TONES[notice.code] ?? 'ochre'}>{noticeWords(notice)}</Notice>
        {notice.code === 'other-server' && plan ? (
          <ExpectServer {...{ job, plan }} server={notice.facts.server} />
        ) : null}
        {notice.stays ? (
          <View style={{ alignItems: 'flex-start' }}>
            <Button
              type="clear"
              title={ASSIGN_WORDS.iHaveReadIt}
              accessibilityLabel={ASSIGN_WORDS.iHaveReadIt2({ code: notice.code })}
              onPress={() => read.mutate({ code: notice.code, at: notice.at })}
            />
          </View>
        ) : null}
      </View>
    ));
}

const NOTICE_TONES: Readonly<Record<string, 'brick' | 'plain'>> = {
  'other-server': 'brick',
  'no-other-server': 'plain',
};

interface NextProps {
  readonly job: string;
  readonly view: JobView;
  readonly book: HeardBook;
  readonly next: Awaited;
}

function NextCall({ view, book, next }: NextProps) {
  const { device, at } = next;
  const offers = book.offersTo(at);
  return (
    <Card strong>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 8 }}>
        <Words size="second" tone="second">
          {[ASSIGN_WORDS.next, placeOf(device)].filter(Boolean).join(' · ')}
        </Words>
        <StageNotches notches={at.notches} />
      </View>
      <Words size="device" heading={2}>
        {device.title}
      </Words>
      <AddressText size="call" address={at.address} length={networkLength(view, at.subnetId)} />
      <Words size="second">
        <Clock>{(now) => nextStep(next, offers, now)}</Clock>
      </Words>
    </Card>
  );
}

/** Prefix lengths of a job's subnets: asked for every line. */
const lengthsIn = oncePer(
  ({ subnets }: JobView): ReadonlyMap<string, number> =>
    new Map(subnets.map((one) => [one.id, lengthOf(one.network)])),
);

const networkLength = (view: JobView, subnetId: string): number | undefined =>
  lengthsIn(view).get(subnetId);

const loanWords = ({ address, until }: NonNullable<Awaited['at']['loan']>, now: number): string =>
  now < until
    ? ASSIGN_WORDS.lentUntil({ address, until: dueOf(until) })
    : ASSIGN_WORDS.theLoanOfIsOverTake({ address });

/** What the next step of a call is, in a few words. */
function nextStep({ device, at }: Awaited, offers: readonly HeardOffer[], now: number): string {
  const [best] = offers;
  if (at.loan) return loanWords(at.loan, now);
  if (at.trouble) return ASSIGN_WORDS.somethingStandsInItsWayOpen;
  if (at.stage === 'given') return ASSIGN_WORDS.itHasItsAddressMakeIt;
  if (at.mac !== null)
    return best
      ? ASSIGN_WORDS.boundItLastAsked({ lastAt: agoWords(best.heard.lastAt, now) })
      : isAsking(device.way)
        ? ASSIGN_WORDS.boundItsNextRequestWillBe
        : ASSIGN_WORDS.boundAwaitedAtItsAddressBy({ way: WAY_WORDS[device.way] });
  if (best) return ASSIGN_WORDS.heardThatMayBeIt({ offers: offers.length });
  return ASSIGN_WORDS.awaitedBy({ way: WAY_WORDS[device.way] });
}

const isSamePlace = (one: Awaited, before: Awaited | undefined): boolean =>
  one.device.cabinet === before?.device.cabinet && one.device.area === before.device.area;

/** Where the next few calls are. */
const PlaceLine = ({ one }: { readonly one: Awaited }) => (
  <View style={{ paddingTop: 12 }}>
    <Words size="caption" tone="second">
      {[
        one.device.cabinet && COMMON_WORDS.cabinet({ cabinet: one.device.cabinet }),
        one.device.area,
      ]
        .filter(Boolean)
        .join(' · ')}
    </Words>
  </View>
);

interface ListProps {
  readonly job: string;
  readonly view: JobView;
  readonly book: HeardBook;
  readonly awaited: readonly Awaited[];
  readonly wide: boolean;
  readonly selected: string | undefined;
}

interface CallRowProps {
  readonly job: string;
  readonly one: Awaited;
  readonly second: string;
  readonly length: number | undefined;
  readonly selected: boolean;
}

/** Drawn again only where something of it has changed: there may be hundreds, and a clock that ticks above them. */
const CallRow = memo(function CallRow({ job, one, second, length, selected }: CallRowProps) {
  const router = useRouter();
  const there = useTakenCall(job, one.at.id);
  const isOther = there !== undefined && !there.isOwn;
  const who = isOther ? `${AT_IT_WORDS.isAtItShort({ person: there.person })} · ` : '';
  return (
    <DeviceRow
      {...{ length, selected }}
      second={`${who}${second}`}
      title={one.device.title}
      isWrong={one.at.trouble !== null}
      address={one.at.address}
      notches={one.at.notches}
      onPress={() => router.navigate(`/job/${job}/call/${one.at.id}`)}
    />
  );
});

function AwaitedList({ job, view, book, awaited, wide, selected }: ListProps) {
  if (awaited.length === 0) return null;
  return (
    <View>
      {wide ? null : (
        <Words size="strong" heading={2}>
          {ASSIGN_WORDS.then}
        </Words>
      )}
      <LongList
        items={awaited}
        keyOf={({ at }) => at.id}
        render={(one, at) => {
          // Once for what was heard, and not once a second.
          const offers = book.offersTo(one.at);
          return (
            <>
              {isSamePlace(one, awaited[at - 1]) ? null : <PlaceLine one={one} />}
              <Clock>
                {(now) => (
                  <CallRow
                    {...{ job, one }}
                    second={nextStep(one, offers, now)}
                    length={networkLength(view, one.at.subnetId)}
                    selected={one.at.id === selected}
                  />
                )}
              </Clock>
            </>
          );
        }}
      />
    </View>
  );
}

function OrderList({
  awaited,
  round,
}: {
  readonly awaited: readonly Awaited[];
  readonly round: Round;
}) {
  const byId = new Map(awaited.map((one) => [one.at.id, one]));
  return (
    <View>
      <LongList
        items={round.order.flatMap((id) => byId.get(id) ?? [])}
        keyOf={({ at }) => at.id}
        render={(one) => <OrderRow one={one} order={round.order} onOrder={round.walkAs} />}
      />
    </View>
  );
}

function Strangers({ strangers }: { readonly strangers: readonly HeardView[] }) {
  if (strangers.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        {ASSIGN_WORDS.strangersHeardBoundToNothingNever}
      </Words>
      <LongList
        items={strangers}
        keyOf={({ mac }) => mac}
        render={(heard) => (
          <Row>
            <Clock>{(now) => <HeardLine heard={heard} now={now} />}</Clock>
          </Row>
        )}
      />
    </View>
  );
}
