import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { must, parsePrefix } from '@ipsonomo/core/net';
import {
  docOf,
  FACTORY_ANSWERS,
  kindOfAnswers,
  NO_ANSWERS,
  PROTOCOLS,
  WAYS,
  type AnswerIssues,
  type KindAnswers,
} from '@ipsonomo/core/plan';
import { WAY_WORDS } from '@ipsonomo/language';
import { KIND_FORM_WORDS } from '@ipsonomo/language/screens/kind-form';
import { newId, useEdit, usePlan } from '../../../data';
import { Card, Choice, Field, Page, Refusals, Toggle, useKept, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { issuesOf } from '../../words';
import { SwitchDesigner } from './SwitchDesigner';

const FACTORY_WORDS: Readonly<Record<KindAnswers['factory'], string>> = {
  'asks-bootp': KIND_FORM_WORDS.asksByBootp,
  'asks-dhcp': KIND_FORM_WORDS.asksByDhcp,
  fixed: KIND_FORM_WORDS.hasAnAddress,
  switches: KIND_FORM_WORDS.asItsSwitchesSay,
  nameless: KIND_FORM_WORDS.withoutNameAndAddress,
  unknown: KIND_FORM_WORDS.nobodyKnows,
};

const FACTORIES = FACTORY_ANSWERS.map((value) => ({ value, title: FACTORY_WORDS[value] }));

/** Where switches are tried as long as the plan has no subnet. */
const SOME_NETWORK = must(parsePrefix('192.168.1.0/24'));

/** A kind in six questions; the long form stays for what is rare. */
export function NewKindScreen({ job }: { readonly job: string }) {
  const router = useRouter();
  const { plan } = usePlan(job);
  const edit = useEdit(job);
  const [id] = useState(newId);
  const [answers, setAnswers, forget] = useKept<KindAnswers>(`new kind ${job}`, NO_ANSWERS);
  const [isAsked, setAsked] = useState(false);
  const set = (part: Partial<KindAnswers>) => setAnswers((all) => ({ ...all, ...part }));
  const read = useMemo(() => kindOfAnswers(answers, id), [answers, id]);
  const wrong = Object.values(read.issues);
  const save = () => {
    setAsked(true);
    if (!read.kind) return;
    const { name } = read.kind;
    edit.mutate(
      {
        edits: [{ op: 'add', type: 'kind', thing: docOf('kind', read.kind) }],
        why: KIND_FORM_WORDS.made({ name }),
      },
      {
        onSuccess: () => {
          forget();
          router.navigate(`/job/${job}/new-devices?kind=${id}`);
        },
      },
    );
  };
  const wide = useWide();
  const half = { flex: wide ? 1 : undefined, gap: 16 };
  const told = isAsked ? read.issues : {};
  return (
    <Page
      maxWidth={1140}
      action={
        <>
          {isAsked && wrong.length > 0 ? (
            <Words size="second" tone="brick">
              {KIND_FORM_WORDS.stillMissing({ count: wrong.length })}
            </Words>
          ) : null}
          <Button
            size="lg"
            title={KIND_FORM_WORDS.makeThisKind}
            loading={edit.isPending}
            onPress={save}
          />
        </>
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {KIND_FORM_WORDS.aKindOfYourOwn}
        </Words>
        <Words tone="second">{KIND_FORM_WORDS.whatAKindIs}</Words>
      </View>
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 16 }}>
        <View style={half}>
          <Named {...{ answers, set, told }} />
          <Ways {...{ answers, set, told }} />
          <Factory {...{ answers, set, told }} />
        </View>
        <View style={half}>
          <SwitchDesigner
            {...{ answers, set, told }}
            issues={read.issues}
            face={read.face}
            network={plan?.subnets[0]?.prefix ?? SOME_NETWORK}
          />
          <Speaks {...{ answers, set }} />
        </View>
      </View>
      <Refusals issues={issuesOf(edit.error)} />
    </Page>
  );
}

interface Question {
  readonly answers: KindAnswers;
  readonly set: (part: Partial<KindAnswers>) => void;
  /** What is wrong, once somebody wanted to be done. */
  readonly told: AnswerIssues;
}

function Named({ answers, set, told }: Question) {
  return (
    <Card>
      <Field
        label={KIND_FORM_WORDS.itsMaker}
        value={answers.maker}
        onChange={(maker) => set({ maker })}
        issue={told['maker']}
      />
      <Field
        label={KIND_FORM_WORDS.whatTheKindIsCalled}
        value={answers.name}
        onChange={(name) => set({ name })}
        placeholder={KIND_FORM_WORDS.forInstance}
        issue={told['name']}
      />
    </Card>
  );
}

const without = <T,>(list: readonly T[], one: T): readonly T[] =>
  list.includes(one) ? list.filter((other) => other !== one) : [...list, one];

function Ways({ answers, set, told }: Question) {
  return (
    <Card>
      <Words size="strong" heading={2}>
        {KIND_FORM_WORDS.howItGetsItsAddress}
      </Words>
      <Several>
        {WAYS.map((way) => (
          <Toggle
            key={way}
            title={WAY_WORDS[way]}
            isOn={answers.ways.includes(way)}
            onPress={() => set({ ways: without(answers.ways, way) })}
          />
        ))}
      </Several>
      <Refusals issues={told['ways'] ? [told['ways']] : []} />
    </Card>
  );
}

function Factory({ answers, set, told }: Question) {
  return (
    <Card>
      <Choice
        label={KIND_FORM_WORDS.howItComesFromItsMaker}
        options={FACTORIES}
        value={answers.factory}
        onChange={(factory) => set({ factory })}
      />
      {answers.factory === 'fixed' ? (
        <Field
          label={KIND_FORM_WORDS.theAddressItComesWith}
          value={answers.factoryAddress}
          onChange={(factoryAddress) => set({ factoryAddress })}
          placeholder="192.168.0.1"
          issue={told['factoryAddress']}
          figures
        />
      ) : null}
    </Card>
  );
}

function Speaks({ answers, set }: Omit<Question, 'told'>) {
  const { speaks, hasPage, answersPing } = answers;
  return (
    <Card>
      <Words size="strong" heading={2}>
        {KIND_FORM_WORDS.whatItSpeaks}
      </Words>
      <Several>
        {PROTOCOLS.map((one) => (
          <Toggle
            key={one}
            title={one}
            isOn={speaks.includes(one)}
            onPress={() => set({ speaks: without(speaks, one) })}
          />
        ))}
        <Toggle
          title={KIND_FORM_WORDS.hasAWebPage}
          isOn={hasPage}
          onPress={() => set({ hasPage: !hasPage })}
        />
        <Toggle
          title={KIND_FORM_WORDS.answersPing}
          isOn={answersPing}
          onPress={() => set({ answersPing: !answersPing })}
        />
      </Several>
    </Card>
  );
}

const Several = ({ children }: { readonly children: React.ReactNode }) => (
  <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>{children}</View>
);
