import { Button } from '@rneui/themed';
import { View } from 'react-native';
import type { Issue, Prefix } from '@ipsonomo/core/net';
import {
  A_DIAL,
  A_DIP_ROW,
  A_MEANING,
  type AnswerIssues,
  type ElementAnswer,
  type KindAnswers,
  type MeaningAnswer,
} from '@ipsonomo/core/plan';
import type { SwitchFace } from '@ipsonomo/core/switches';
import { KIND_FORM_WORDS } from '@ipsonomo/language/screens/kind-form';
import { Card, Refusals, Words } from '../../../parts';
import { ElementCard } from './ElementCard';
import { MeaningCard } from './MeaningCard';
import { TrySwitches } from './TrySwitches';

interface Props {
  readonly answers: KindAnswers;
  readonly set: (part: Partial<KindAnswers>) => void;
  /** What is told already, and all that is wrong. */
  readonly told: AnswerIssues;
  readonly issues: AnswerIssues;
  readonly face: SwitchFace | undefined;
  readonly network: Prefix;
}

/** One of a list put in place of another, or taken out. */
const replaced = <T,>(list: readonly T[], at: number, one: T | undefined): readonly T[] =>
  list.flatMap((other, index) => (index === at ? (one === undefined ? [] : [one]) : [other]));

/** The switches of a kind: drawn one by one, given a meaning, and tried at once. */
export function SwitchDesigner({ answers, set, told, issues, face, network }: Props) {
  const { elements, meanings } = answers;
  const add = (element: ElementAnswer) =>
    set({
      elements: [...elements, element],
      // The usual meaning stands there as soon as there is a switch.
      ...(meanings.length === 0 ? { meanings: [A_MEANING] } : {}),
    });
  const setElement = (at: number) => (next: ElementAnswer | undefined) =>
    set({ elements: replaced(elements, at, next) });
  const setMeaning = (at: number) => (next: MeaningAnswer | undefined) =>
    set({ meanings: replaced(meanings, at, next) });
  const hasMode = elements.some(({ use }) => use === 'mode');
  const ofAll = [told['elements'], told['meanings']].filter(
    (one): one is Issue => one !== undefined,
  );
  return (
    <Card>
      <Words size="strong" heading={2}>
        {KIND_FORM_WORDS.itsSwitches}
      </Words>
      {elements.length === 0 ? (
        <Words size="second" tone="second">
          {KIND_FORM_WORDS.ifItHasSome}
        </Words>
      ) : null}
      {elements.map((one, at) => (
        <ElementCard
          key={at}
          element={one}
          number={at + 1}
          issueOf={(field) => told[`elements.${at}.${field}`]}
          onChange={setElement(at)}
        />
      ))}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          type="outline"
          title={KIND_FORM_WORDS.addADial}
          onPress={() => add({ ...A_DIAL, weights: nextWeight(elements) })}
        />
        <Button
          type="outline"
          title={KIND_FORM_WORDS.addARowOfDip}
          onPress={() => add(A_DIP_ROW)}
        />
      </View>
      {elements.length > 0 ? (
        <>
          <Words size="strong" heading={3}>
            {KIND_FORM_WORDS.whatTheValuesMean}
          </Words>
          {meanings.map((one, at) => (
            <MeaningCard
              key={at}
              meaning={one}
              number={at + 1}
              hasMode={hasMode}
              issueOf={(field) => told[`meanings.${at}.${field}`]}
              onChange={setMeaning(at)}
            />
          ))}
          <Button
            type="outline"
            title={KIND_FORM_WORDS.anotherMeaning}
            onPress={() => set({ meanings: [...meanings, { ...A_MEANING, from: '', to: '' }] })}
          />
        </>
      ) : null}
      <Refusals issues={ofAll} />
      {face && hasNone(issues, ['elements.', 'meanings.']) ? (
        <TrySwitches key={JSON.stringify(face)} face={face} network={network} />
      ) : null}
    </Card>
  );
}

const hasNone = (issues: AnswerIssues, begins: readonly string[]): boolean =>
  !Object.keys(issues).some((where) => begins.some((begin) => where.startsWith(begin)));

/** A dial left of the tens is one of the hundreds: a new one stands right of the others. */
function nextWeight(elements: readonly ElementAnswer[]): string {
  const least = Math.min(
    ...elements.flatMap(({ kind, use, weights }) =>
      kind === 'dial' && use === 'number' ? [Number(weights) || 1] : [],
    ),
  );
  return Number.isFinite(least) && least >= 10
    ? String(least / 10)
    : Number.isFinite(least)
      ? '1'
      : '10';
}
