import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { columnWords, sentenceOf } from '@ipsonomo/language';
import type { Plan } from '@ipsonomo/core/plan';
import { columnOf, rowsOf, type BadCell, type BadRowCell } from '@ipsonomo/core/sheet';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import { Words } from '../../parts';
import { useColours } from '../../theme';
import type { Proposal } from './sheet-edits';

interface Props {
  readonly plan: Plan;
  readonly proposal: Proposal;
  readonly onTake: () => void;
  readonly onLeave: () => void;
}

const MOST = 100;

/** Before anything is changed: which cells cannot be taken, and why. */
export function PastePane({ plan, proposal, onTake, onLeave }: Props) {
  const colours = useColours();
  const { bad, count } = proposal;
  const titles = new Map(rowsOf(plan).map((row) => [row.id, row.device.title]));
  const rowWords = (one: BadCell | BadRowCell) =>
    typeof one.row === 'number'
      ? SHEET_WORDS.line({ row: one.row + 1 })
      : (titles.get(one.row) ?? '');
  const badLines = new Set(bad.map((one) => one.row)).size;
  const isLines = typeof bad[0]?.row === 'number';
  const rest = count - (isLines ? badLines : bad.length);
  return (
    <View style={{ gap: 12 }} role="alert">
      <Words size="device" heading={2}>
        {SHEET_WORDS.cellCannotBeTaken({ bad: bad.length })}
      </Words>
      <Words size="second">{SHEET_WORDS.nothingHasBeenChangedYet}</Words>
      {bad.slice(0, MOST).map((one, index) => (
        <View
          key={index}
          style={{ borderTopWidth: 3, borderTopColor: colours.brick, paddingTop: 6 }}
        >
          <Words size="caption" tone="second">
            {rowWords(one)} · {columnWords(columnOf(one.column))}
          </Words>
          <Words size="second">{one.text === '' ? '(empty)' : `“${one.text}”`}</Words>
          <Words size="second" tone="brick">
            {sentenceOf(one.issue)}
          </Words>
        </View>
      ))}
      {bad.length > MOST ? (
        <Words size="second">{SHEET_WORDS.andMore({ bad: bad.length - MOST })}</Words>
      ) : null}
      {rest > 0 && proposal.edits.length > 0 ? (
        <Button
          title={
            isLines
              ? SHEET_WORDS.takeTheOtherLines({ rest })
              : SHEET_WORDS.takeTheOtherCells({ rest })
          }
          onPress={onTake}
        />
      ) : null}
      <Button type="outline" title={SHEET_WORDS.leaveEverythingAsItIs} onPress={onLeave} />
    </View>
  );
}
