import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import {
  formatMac,
  judgeLabel,
  macDigits,
  parseLabel,
  parseMac,
  type LabelReading,
  type LabelVerdict,
  type MacAddress,
} from '@ipsonomo/core/net';
import { isAsking } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { acts, useAct, useWire, isListening } from '../../../data';
import { Card, Field, LabelCheck, Notice, Refusals, Row, Words, useDraft } from '../../../parts';
import { HeardLine } from '../assign/HeardLine';
import { reasonWords } from '../assign/awaited';
import { issuesOf } from '../../words';
import { useWide } from '../../../theme';
import { ANSWER_MINUTES } from './Answering';
import { CallPage, type Call } from './CallPage';
import { LabelField } from '../label/LabelField';
import { factoryOf } from './factory';
import { Waiting } from './Waiting';

const CAME = CALL_WORDS.itCameUpWithItsAddress;

interface Props {
  readonly call: Call;
  /** One that was chosen from those seen elsewhere, and the way back to them. */
  readonly there?: string;
  readonly onBack?: () => void;
}

/** Nothing is bound yet: the label against what was heard, then bind and give. */
export function BindStep({ call, there: chosenThere, onBack }: Props) {
  const { job, at, offers } = call;
  const asks = isAsking(call.device.way);
  const { field, now } = useWire();
  const [chosen, setChosen] = useState<string>();
  const [typed, setTyped, forgetTyped] = useDraft(`label ${at.id}`);
  const [reason, setReason, forgetReason] = useDraft(`label differs ${at.id}`);
  const [isNone, setNone] = useState(false);
  const binding = useBindAndGive(job, at.id, asks, () => {
    forgetTyped();
    forgetReason();
  });
  const listening = isListening(field);
  // What is held against the label must not change under the hand when another device speaks.
  const [first] = offers;
  if (chosen === undefined && first) setChosen(first.heard.mac);
  const label = typed === '' ? undefined : parseLabel(typed);
  const named = label?.ok ? formatMac(label.value.mac) : undefined;
  const held =
    offers.find((offer) => offer.heard.mac === named) ??
    offers.find((offer) => offer.heard.mac === chosen);
  const seen = at.check?.facts['found'];
  const there =
    chosenThere ??
    at.arrived ??
    at.before ??
    (typeof seen === 'string' ? seen.split(',')[0] : undefined);
  const macText = held?.heard.mac ?? there;
  const mac = macText === undefined ? undefined : parseMac(macText);
  const verdict = label?.ok && mac?.ok ? judgeLabel(label.value.mac, mac.value) : undefined;
  // It came up with the planned address while it was watched: that shows which one it is.
  const came = at.arrived !== null && at.arrived === macText && typed === '';
  const settled = verdict?.kind === 'same' || (verdict && reason.trim() !== '') || came;

  if (!listening && !macText) return <NotListening call={call} />;
  if (!mac?.ok || !macText) return <Waiting call={call} />;
  if (isNone) return <Waiting call={call} onBack={() => setNone(false)} />;
  const bind = () => binding.act({ mac: macText, label: typed, reason: came ? CAME : reason });
  return (
    <CallPage
      call={call}
      action={
        <>
          <Refusals issues={binding.issues} />
          <Button
            size="lg"
            title={
              asks
                ? CALL_WORDS.bindAndGive({ address: at.address })
                : came
                  ? CALL_WORDS.itIsThisOne
                  : CALL_WORDS.bindThisMac
            }
            disabled={!settled}
            loading={binding.isPending}
            onPress={bind}
          />
          {settled ? null : (
            <Words size="caption" tone="second" align="center">
              {CALL_WORDS.onceTheLabelIsSettled}
            </Words>
          )}
        </>
      }
    >
      {at.before !== null && at.before === macText && !came ? (
        <Notice
          tone="plain"
          title={CALL_WORDS.itAnswersAt({ call: factoryOf(call) ?? CALL_WORDS.itsOldAddress })}
        >
          {CALL_WORDS.nothingElseAnswersThereNowHold}
        </Notice>
      ) : null}
      {came ? (
        <Notice tone="moss" title={CALL_WORDS.itCameUpWith({ address: at.address })}>
          {CALL_WORDS.holdItsLabelAgainstTheMac}
        </Notice>
      ) : null}
      <Card>
        <LabelCheck label={label?.ok ? label.value.mac : undefined} heard={mac.value} />
        {held ? <HeardLine heard={held.heard} now={now} bare /> : null}
        <LabelField label={CALL_WORDS.typeTheMacFromTheLabel} value={typed} onChange={setTyped} />
        {label?.ok ? <Repairs reading={label.value} /> : null}
        {label?.ok && verdict ? (
          <Verdict
            verdict={verdict}
            label={label.value.mac}
            heard={mac.value}
            onSays={setTyped}
            reason={reason}
            onReason={setReason}
          />
        ) : null}
      </Card>
      <Others call={call} current={macText} onChoose={setChosen} />
      <Button
        type="clear"
        title={onBack ? CALL_WORDS.backItIsAnother : CALL_WORDS.itIsNoneThatIsHeard}
        onPress={onBack ?? (() => setNone(true))}
      />
    </CallPage>
  );
}

/** Binding, and with it answering where the device asks for its address. */
function useBindAndGive(job: string, id: string, asks: boolean, onBound: () => void) {
  const bind = useAct(acts.bind, { job, interface: id });
  const both = useAct(acts.bindAndAnswer, { job, interface: id });
  const act = ({ mac, label, reason }: { mac: string; label: string; reason: string }) => {
    const binding = { mac, label, ...(reason.trim() ? { reason } : {}) };
    return asks
      ? both.mutateAsync({ ...binding, minutes: ANSWER_MINUTES })
      : bind.mutateAsync(binding);
  };
  return {
    // What is typed is forgotten also where the news take this away first; a refusal is shown from the act itself.
    act: (binding: Parameters<typeof act>[0]) =>
      void act(binding)
        .then(onBound)
        .catch(() => undefined),
    isPending: bind.isPending || both.isPending,
    issues: issuesOf(bind.error ?? both.error),
  };
}

function NotListening({ call }: { readonly call: Call }) {
  const listen = useAct(acts.listen, { job: call.job });
  const wide = useWide(); // there the list beside it has the button
  return (
    <CallPage
      call={call}
      action={
        wide ? undefined : (
          <Button
            size="lg"
            title={COMMON_WORDS.startListening}
            loading={listen.isPending}
            onPress={() => listen.mutate()}
          />
        )
      }
    >
      <Refusals issues={issuesOf(listen.error)} />
      <Notice tone="plain" title={CALL_WORDS.nobodyListensYet}>
        {CALL_WORDS.listeningSendsNothingItShowsWhich}
      </Notice>
    </CallPage>
  );
}

function Repairs({ reading }: { readonly reading: LabelReading }) {
  if (reading.repairs.length === 0) return null;
  const said = reading.repairs.map(({ from, to }) => CALL_WORDS.as({ from, to })).join(', ');
  return (
    <Words size="second" tone="second">
      {CALL_WORDS.notHexSoReadOtherwise({ said })}
    </Words>
  );
}

interface VerdictProps {
  readonly verdict: LabelVerdict;
  readonly label: MacAddress;
  readonly heard: MacAddress;
  readonly onSays: (label: string) => void;
  readonly reason: string;
  readonly onReason: (reason: string) => void;
}

function Verdict({ verdict, label, heard, onSays, reason, onReason }: VerdictProps) {
  const [insists, setInsists] = useState(false);
  if (verdict.kind === 'same') return <Notice tone="moss">{CALL_WORDS.labelAndWireAgree}</Notice>;
  const why = (
    <Field
      label={CALL_WORDS.itIsThisOneAllThe}
      value={reason}
      onChange={onReason}
      placeholder={CALL_WORDS.onlyThisOneIsPowered}
    />
  );
  if (verdict.kind === 'alike' && !insists) {
    const read = macDigits(label)[verdict.place] ?? '';
    const sent = macDigits(heard)[verdict.place] ?? '';
    return (
      <View style={{ gap: 10 }}>
        <Notice tone="ochre">
          {CALL_WORDS.andAreEasilyConfusedOnA({
            read,
            sent,
            place: Math.floor(verdict.place / 2) + 1,
          })}
        </Notice>
        <View style={{ flexDirection: 'row', gap: 10 }}>
          <View style={{ flex: 1 }}>
            <Button
              type="outline"
              title={CALL_WORDS.labelSays({ sent })}
              onPress={() => onSays(macDigits(heard))}
            />
          </View>
          <View style={{ flex: 1 }}>
            <Button
              type="outline"
              title={CALL_WORDS.labelSays2({ read })}
              onPress={() => setInsists(true)}
            />
          </View>
        </View>
      </View>
    );
  }
  return (
    <View style={{ gap: 10 }}>
      <Notice tone="brick">{differenceWords(verdict)}</Notice>
      {why}
    </View>
  );
}

function differenceWords(verdict: LabelVerdict): string {
  if (verdict.kind === 'near') return CALL_WORDS.theTwoAreNearButNot;
  if (verdict.kind === 'alike') return CALL_WORDS.thenThisIsAnotherDeviceOr;
  return CALL_WORDS.thisIsAnotherDeviceLookAt;
}

interface OthersProps {
  readonly call: Call;
  readonly current: string;
  readonly onChoose: (mac: string) => void;
}

function Others({ call, current, onChoose }: OthersProps) {
  const { now } = useWire();
  const others = call.offers.filter((offer) => offer.heard.mac !== current);
  if (others.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        {CALL_WORDS.alsoHeard}
      </Words>
      {others.map(({ heard, reasons }) => (
        <Row
          key={heard.mac}
          onPress={() => onChoose(heard.mac)}
          label={CALL_WORDS.holdAgainstTheLabel({ mac: heard.mac })}
        >
          <HeardLine heard={heard} now={now} note={reasonWords(reasons)} />
        </Row>
      ))}
    </View>
  );
}
