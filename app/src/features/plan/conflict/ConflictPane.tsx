import { Button, ButtonGroup } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { fieldWords, thingWords, valueWords } from '@ipsonomo/language';
import type { Edit, EditConflict, PlanDoc } from '@ipsonomo/core/plan';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { ApiError } from '../../../data';
import { Words } from '../../../parts';
import { useColours } from '../../../theme';
import { canBeMine, conflictKey, settle, type Choice } from './settle';

/** The conflicts of a failed change; empty where it failed for another reason or not at all. */
export const conflictsOf = (error: unknown): readonly EditConflict[] =>
  error instanceof ApiError ? error.conflicts : [];

interface Props {
  readonly doc: PlanDoc;
  readonly edits: readonly Edit[];
  readonly conflicts: readonly EditConflict[];
  readonly isBusy: boolean;
  readonly onSettle: (edits: readonly Edit[]) => void;
  readonly onLeave: () => void;
}

/** Somebody else changed the same meanwhile: both stand side by side, and one is chosen. */
export function ConflictPane({ doc, edits, conflicts, isBusy, onSettle, onLeave }: Props) {
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  const open = conflicts.filter((one) => canBeMine(one) && !choices.has(conflictKey(one)));
  const choose = (one: EditConflict, choice: Choice) =>
    setChoices((known) => new Map(known).set(conflictKey(one), choice));
  return (
    <View style={{ gap: 12 }} role="alert">
      <Words size="device" heading={2}>
        {PLAN_WORDS.fieldChangedBySomebodyElseToo({ conflicts: conflicts.length })}
      </Words>
      <Words size="second">{PLAN_WORDS.nothingOfYoursHasBeenWritten}</Words>
      {conflicts.map((one) => (
        <Conflict
          key={conflictKey(one)}
          {...{ doc, one }}
          choice={choices.get(conflictKey(one))}
          onChoose={(choice) => choose(one, choice)}
        />
      ))}
      <Button
        title={PLAN_WORDS.writeWhatIChose}
        disabled={open.length > 0}
        loading={isBusy}
        onPress={() => onSettle(settle(edits, conflicts, choices))}
      />
      <Button type="outline" title={PLAN_WORDS.leaveAllOfItAsTheirs} onPress={onLeave} />
    </View>
  );
}

interface ConflictProps {
  readonly doc: PlanDoc;
  readonly one: EditConflict;
  readonly choice: Choice | undefined;
  readonly onChoose: (choice: Choice) => void;
}

function Conflict({ doc, one, choice, onChoose }: ConflictProps) {
  const colours = useColours();
  const { type, id, field, base, theirs, mine } = one;
  const words = (json: EditConflict['mine']) => valueWords(field ?? '', json, doc);
  const order: readonly Choice[] = ['mine', 'theirs'];
  return (
    <View style={{ borderTopWidth: 3, borderTopColor: colours.ochre, paddingTop: 6, gap: 6 }}>
      <Words size="strong">
        {thingWords(type, id, doc)}
        {field === undefined ? '' : `, ${fieldWords(field)}`}
      </Words>
      <Words size="caption" tone="second">
        {PLAN_WORDS.itWas({ base: words(base) })}
      </Words>
      {canBeMine(one) ? (
        <ButtonGroup
          buttons={[
            PLAN_WORDS.mine({ mine: words(mine) }),
            PLAN_WORDS.theirs({ theirs: words(theirs) }),
          ]}
          selectedIndex={choice === undefined ? -1 : order.indexOf(choice)}
          onPress={(index: number) => onChoose(order[index] ?? 'theirs')}
        />
      ) : (
        <Words size="second">{PLAN_WORDS.itIsNoLongerAsYou}</Words>
      )}
    </View>
  );
}
