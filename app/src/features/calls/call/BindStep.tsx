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

const CAME = 'it came up with its address while it was watched';

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
            title={asks ? `Bind and give ${at.address}` : came ? 'It is this one' : 'Bind this MAC'}
            disabled={!settled}
            loading={binding.isPending}
            onPress={bind}
          />
          {settled ? null : (
            <Words size="caption" tone="second" align="center">
              once the label is settled
            </Words>
          )}
        </>
      }
    >
      {at.before !== null && at.before === macText && !came ? (
        <Notice tone="plain" title={`It answers at ${factoryOf(call) ?? 'its old address'}`}>
          Nothing else answers there now. Hold its label against the MAC before it is changed.
        </Notice>
      ) : null}
      {came ? (
        <Notice tone="moss" title={`It came up with ${at.address}`}>
          Hold its label against the MAC if more than one was switched on.
        </Notice>
      ) : null}
      <Card>
        <LabelCheck label={label?.ok ? label.value.mac : undefined} heard={mac.value} />
        {held ? <HeardLine heard={held.heard} now={now} bare /> : null}
        <LabelField
          label="Type the MAC from the label, in any notation"
          value={typed}
          onChange={setTyped}
        />
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
        title={onBack ? 'Back: it is another' : 'It is none that is heard'}
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
            title="Start listening"
            loading={listen.isPending}
            onPress={() => listen.mutate()}
          />
        )
      }
    >
      <Refusals issues={issuesOf(listen.error)} />
      <Notice tone="plain" title="Nobody listens yet">
        Listening sends nothing. It shows which devices ask for an address.
      </Notice>
    </CallPage>
  );
}

function Repairs({ reading }: { readonly reading: LabelReading }) {
  if (reading.repairs.length === 0) return null;
  const said = reading.repairs.map(({ from, to }) => `${from} as ${to}`).join(', ');
  return (
    <Words size="second" tone="second">
      Not hex, so read otherwise: {said}.
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
  if (verdict.kind === 'same') return <Notice tone="moss">Label and wire agree.</Notice>;
  const why = (
    <Field
      label="It is this one all the same: how do you know?"
      value={reason}
      onChange={onReason}
      placeholder="only this one is powered"
    />
  );
  if (verdict.kind === 'alike' && !insists) {
    const read = macDigits(label)[verdict.place] ?? '';
    const sent = macDigits(heard)[verdict.place] ?? '';
    return (
      <View style={{ gap: 10 }}>
        <Notice tone="ochre">
          {`${read} and ${sent} are easily confused on a worn label. Look once more at pair ${Math.floor(verdict.place / 2) + 1}.`}
        </Notice>
        <View style={{ flexDirection: 'row', gap: 10 }}>
          <View style={{ flex: 1 }}>
            <Button
              type="outline"
              title={`Label says ${sent}`}
              onPress={() => onSays(macDigits(heard))}
            />
          </View>
          <View style={{ flex: 1 }}>
            <Button type="outline" title={`Label says ${read}`} onPress={() => setInsists(true)} />
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
  if (verdict.kind === 'near')
    return 'The two are near, but not the same. A device with several ports may bear the first MAC on its label. Near is a hint and no match.';
  if (verdict.kind === 'alike')
    return 'Then this is another device, or its sticker is wrong. Look at what else is heard below.';
  return 'This is another device. Look at what else is heard below.';
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
        Also heard
      </Words>
      {others.map(({ heard, reasons }) => (
        <Row
          key={heard.mac}
          onPress={() => onChoose(heard.mac)}
          label={`hold ${heard.mac} against the label`}
        >
          <HeardLine heard={heard} now={now} note={reasonWords(reasons)} />
        </Row>
      ))}
    </View>
  );
}
