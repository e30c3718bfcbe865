import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { ScrollView, TextInput, View } from 'react-native';
import type { NotchView } from '@ipsonomo/core/api';
import { kindsOf } from '@ipsonomo/core/plan';
import { rowsOf, type SheetRow } from '@ipsonomo/core/sheet';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import { acts, type Job, useAct, useEdit } from '../../data';
import { Refusals, Words } from '../../parts';
import { SPACE, TOUCH, TYPE, useColours, WORDS } from '../../theme';
import { ConflictPane, conflictsOf } from '../plan';
import { issuesOf } from '../words';
import { marksOf } from './marks';
import { PastePane } from './PastePane';
import { Sheet } from './Sheet';
import { SheetSide } from './SheetSide';
import { SubnetBar } from './SubnetBar';
import { useSheet } from './use-sheet';
import { useTable } from './use-table';
import type { Proposal } from './sheet-edits';

interface Props {
  readonly id: string;
  readonly job: Job;
  /** The device shown beside the sheet; undefined for the snags. */
  readonly selected: string | undefined;
}

const NONE: readonly NotchView[] = [];

/** The plan where there is room: all devices as a sheet, what speaks against them beside it. */
export function PlanSheet({ id, job, selected }: Props) {
  const colours = useColours();
  const router = useRouter();
  const { plan, doc, snags } = job;
  const [subnetId, setSubnetId] = useState<string>();
  const [isFiltering, setFiltering] = useState(false);
  const [asked, setAsked] = useState<Proposal>();
  const find = useRef<TextInput>(null);
  const edit = useEdit(id);
  const conflicts = conflictsOf(edit.error);
  const undo = useAct(acts.undo, { job: id });
  const redo = useAct(acts.redo, { job: id });
  const all = useMemo(() => rowsOf(plan), [plan]);
  const rows = useMemo(
    () => (subnetId === undefined ? all : all.filter((row) => row.at?.subnetId === subnetId)),
    [all, subnetId],
  );
  const marks = useMemo(() => marksOf(all, snags), [all, snags]);
  const notches = useMemo(() => notchesOf(job), [job]);
  const kinds = useMemo(() => kindsOf(plan).map((kind) => kind.name), [plan]);
  const search = useTable(rows, plan);
  const apply = ({ edits, why }: Proposal) => {
    if (edits.length > 0) edit.mutate({ edits, why });
    setAsked(undefined);
  };
  const make = (proposal: Proposal) =>
    proposal.bad.length > 0 ? setAsked(proposal) : apply(proposal);
  const sheet = useSheet({ plan, doc, subnetId, lines: search.lines, make });
  const chosen = sheet.rect.bottom - sheet.rect.top + 1;
  const line = sheet.lines[sheet.cursor.row];
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      <View style={{ flex: 1, minWidth: 0 }}>
        <View style={{ padding: SPACE.page, paddingBottom: 8, gap: 8 }}>
          <Top
            {...{ id, find, search, isFiltering }}
            name={job.view.name}
            onFilter={() => {
              if (isFiltering) search.table.resetColumnFilters();
              setFiltering(!isFiltering);
            }}
          />
          <SubnetBar id={id} plan={plan} snags={snags} shown={subnetId} onShow={setSubnetId} />
        </View>
        <Sheet
          {...{ plan, kinds, sheet, marks, isFiltering }}
          table={search.table}
          notchesOf={(row: SheetRow) => notches.get(row.id) ?? NONE}
          onUndo={() => undo.mutate()}
          onRedo={() => redo.mutate()}
          onFind={() => find.current?.focus()}
        />
        <Foot
          words={SHEET_WORDS.otherChosen({
            lines: sheet.lines.length,
            chosen: chosen > 1 ? SHEET_WORDS.chosen({ chosen }) : '',
          })}
          chosen={chosen}
          at={line?.id}
          onFill={sheet.fill}
          onCountOn={sheet.countOn}
          onTakeOut={line ? sheet.takeOut : undefined}
          onOpen={line ? () => router.navigate(`/job/${id}/device/${line.device.id}`) : undefined}
          onUndo={() => undo.mutate()}
          onRedo={() => redo.mutate()}
        />
        <Refusals
          issues={issuesOf(
            conflicts.length > 0 ? undefined : (edit.error ?? undo.error ?? redo.error),
          )}
        />
      </View>
      <View
        style={{
          width: 360,
          borderLeftWidth: 1,
          borderLeftColor: colours.line,
          backgroundColor: colours.surface,
        }}
      >
        {conflicts.length > 0 ? (
          <ScrollView contentContainerStyle={{ padding: SPACE.page }}>
            <ConflictPane
              {...{ doc, conflicts }}
              edits={edit.variables?.edits ?? []}
              isBusy={edit.isPending}
              onSettle={(edits) => edit.mutate({ edits, why: edit.variables?.why ?? '' })}
              onLeave={() => edit.reset()}
            />
          </ScrollView>
        ) : asked ? (
          <ScrollView contentContainerStyle={{ padding: SPACE.page }}>
            <PastePane
              {...{ plan, proposal: asked }}
              onTake={() => apply(asked)}
              onLeave={() => setAsked(undefined)}
            />
          </ScrollView>
        ) : (
          <SheetSide {...{ id, job, subnetId, selected }} />
        )}
      </View>
    </View>
  );
}

interface TopProps {
  readonly id: string;
  readonly name: string;
  readonly find: React.RefObject<TextInput | null>;
  readonly search: ReturnType<typeof useTable>;
  readonly isFiltering: boolean;
  readonly onFilter: () => void;
}

/** Whose plan it is, and how to come to a part of it. */
function Top({ id, name, find, search, isFiltering, onFilter }: TopProps) {
  const colours = useColours();
  const router = useRouter();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      <View style={{ flex: 1 }}>
        <Words size="title" heading={1} lines={1}>
          {name}
        </Words>
      </View>
      <TextInput
        ref={find}
        accessibilityLabel={SHEET_WORDS.findInTheSheet}
        placeholder={SHEET_WORDS.find}
        placeholderTextColor={colours.second}
        value={search.find}
        onChangeText={search.setFind}
        style={{
          width: 180,
          height: TOUCH,
          paddingHorizontal: 10,
          borderWidth: 1,
          borderColor: colours.second,
          borderRadius: 8,
          backgroundColor: colours.surface,
          color: colours.ink,
          fontFamily: WORDS,
          fontSize: TYPE.second.fontSize,
        }}
      />
      <Button
        type={isFiltering || search.isFiltered ? 'solid' : 'outline'}
        title={SHEET_WORDS.narrowDown}
        onPress={onFilter}
      />
      <Button
        title={COMMON_WORDS.addDevices}
        onPress={() => router.navigate(`/job/${id}/new-devices`)}
      />
    </View>
  );
}

/** How far each interface has come, by its id. */
const notchesOf = ({ view }: Job): ReadonlyMap<string, readonly NotchView[]> =>
  new Map(view.devices.flatMap(({ interfaces }) => interfaces.map((at) => [at.id, at.notches])));

interface FootProps {
  readonly words: string;
  readonly chosen: number;
  /** The line the cursor is in. */
  readonly at: string | undefined;
  readonly onFill: () => void;
  readonly onCountOn: () => void;
  readonly onTakeOut: (() => void) | undefined;
  readonly onOpen: (() => void) | undefined;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
}

/** What can be done with what is chosen; each has a key too. */
function Foot(props: FootProps) {
  const { words, chosen, at, onFill, onCountOn, onTakeOut, onOpen, onUndo, onRedo } = props;
  const colours = useColours();
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 4,
        paddingHorizontal: SPACE.page,
        borderTopWidth: 1,
        borderTopColor: colours.line,
        backgroundColor: colours.surface,
      }}
    >
      <View style={{ flex: 1 }}>
        <Words size="caption" tone="second" lines={1}>
          {SHEET_WORDS.pasteAnywhere({ words })}
        </Words>
      </View>
      <Button type="clear" title={SHEET_WORDS.fillDown} disabled={chosen < 2} onPress={onFill} />
      <Button type="clear" title={SHEET_WORDS.countOn} disabled={chosen < 2} onPress={onCountOn} />
      <TakeOut key={`${at}|${chosen}`} onTakeOut={onTakeOut} />
      <Button type="clear" title={SHEET_WORDS.open} disabled={!onOpen} onPress={() => onOpen?.()} />
      <Button type="clear" title={SHEET_WORDS.undo} onPress={onUndo} />
      <Button type="clear" title={COMMON_WORDS.redo} onPress={onRedo} />
    </View>
  );
}

/** Asked once more: a device goes with its addresses and cables. */
function TakeOut({ onTakeOut }: Pick<FootProps, 'onTakeOut'>) {
  const [sure, setSure] = useState(false);
  return (
    <Button
      type="clear"
      title={sure ? SHEET_WORDS.yesTakeOut : SHEET_WORDS.takeOut}
      disabled={!onTakeOut}
      onPress={() => {
        if (sure) onTakeOut?.();
        setSure(!sure);
      }}
    />
  );
}
