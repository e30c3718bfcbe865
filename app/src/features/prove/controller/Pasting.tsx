import { Button } from '@rneui/themed';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { enteredEdits, placeEntered, readEntered } from '@ipsonomo/core/entered';
import type { Plan, PlanDoc } from '@ipsonomo/core/plan';
import { formatCells, parseCells } from '@ipsonomo/core/sheet';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { CONTROLLER_WORDS } from '@ipsonomo/language/screens/controller';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { acts, chooseFile, useAct, useEdit, useList, useListLines } from '../../../data';
import { Card, LongField, Notice, Pick, Refusals, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly onDone: () => void;
}

const PLACED_WORDS = {
  name: '',
  address: CONTROLLER_WORDS.foundByItsAddressTheName,
  slip: CONTROLLER_WORDS.itsNameIsNearlyThePlanned,
  nothing: PROVE_WORDS.nobodyOfThePlan,
} as const;

/** What was copied in the controller's project: read, shown, and taken only then. */
export function Pasting({ id, plan, doc, onDone }: Props) {
  const edit = useEdit(id);
  const [text, setText, forget] = useDraft(`entered in the controller ${id}`);
  const read = text.trim() === '' ? undefined : readEntered(parseCells(text));
  const placed = read?.ok ? placeEntered(plan, read.value.lines) : [];
  const unread = read?.ok ? read.value.unread : [];
  const known = placed.filter(({ device }) => device !== undefined);
  const leave = () => {
    forget();
    onDone();
  };
  const take = () =>
    edit.mutate(
      {
        edits: enteredEdits(doc, placed),
        why: CONTROLLER_WORDS.asEnteredInTheController({ known: known.length }),
      },
      { onSuccess: leave },
    );
  return (
    <Card strong>
      <FromFile id={id} onRead={setText} />
      <LongField label={CONTROLLER_WORDS.pasteTheTableHereOrType} value={text} onChange={setText} />
      {unread.length > 0 ? (
        <Notice tone="ochre" title={CONTROLLER_WORDS.columnsNotRead({ count: unread.length })}>
          {unread.join(', ')}
        </Notice>
      ) : null}
      <Refusals issues={read && !read.ok ? read.error : issuesOf(edit.error)} />
      {placed.map(({ line, device, by }) => (
        <View key={line.line} style={{ gap: 1 }}>
          <Words size="second" tone={device ? 'ink' : 'ochre'}>
            {`${line.name || '–'} → ${device?.title ?? PLACED_WORDS.nothing}`}
          </Words>
          {device && by !== 'name' ? (
            <Words size="caption" tone="ochre">
              ! {PLACED_WORDS[by]}
            </Words>
          ) : null}
        </View>
      ))}
      <Button
        title={CONTROLLER_WORDS.takeLine({ known: known.length })}
        disabled={known.length === 0}
        loading={edit.isPending}
        onPress={take}
      />
      <Button type="clear" title={COMMON_WORDS.leaveIt} onPress={leave} />
    </Card>
  );
}

/** The same table out of a spreadsheet: read as any list is, and put where it can be seen and corrected. */
function FromFile({
  id,
  onRead,
}: {
  readonly id: string;
  readonly onRead: (text: string) => void;
}) {
  const send = useAct(acts.sendList, { job: id });
  const [list, setList] = useState<string>();
  const [sheet, setSheet] = useState<number>();
  const { data: view, error: lost } = useList(id, list);
  const sheets = view?.state === 'ready' ? view.sheets : [];
  const chosen = sheets.length === 1 ? 0 : sheet;
  const { data: read, error } = useListLines(id, list, sheets.length > 0 ? chosen : undefined);
  useEffect(() => {
    if (read) onRead(formatCells(read.lines));
  }, [read, onRead]);
  const choose = async () => {
    const file = await chooseFile('.xlsx,.csv,.txt,.tsv');
    if (!file) return;
    setList(undefined);
    setSheet(undefined);
    send.mutate(file, { onSuccess: (made) => setList(made.id) });
  };
  const left = read ? read.count + 1 - read.lines.length : 0;
  return (
    <View style={{ gap: 8 }}>
      <Button
        type="outline"
        title={COMMON_WORDS.chooseAFile}
        loading={send.isPending || view?.state === 'reading'}
        onPress={() => void choose()}
      />
      {sheets.length > 1 ? (
        <Pick
          label={CONTROLLER_WORDS.whichSheet}
          options={sheets.map((one, at) => ({ value: at, title: one.name }))}
          value={chosen}
          onChange={setSheet}
        />
      ) : null}
      {left > 0 ? (
        <Words tone="ochre">{CONTROLLER_WORDS.lineMoreAreLeftOut({ left })}</Words>
      ) : null}
      <Refusals
        issues={view?.state === 'failed' ? [view.issue] : issuesOf(error ?? send.error ?? lost)}
      />
    </View>
  );
}
