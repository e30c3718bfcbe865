import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import type { ListTaking, SheetSummary } from '@ipsonomo/core/api';
import { kindsOf, type Plan } from '@ipsonomo/core/plan';
import { columnsOfList, LIST_COLUMNS, type ColumnId, type KindWords } from '@ipsonomo/core/sheet';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { IMPORT_WORDS } from '@ipsonomo/language/screens/import';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { acts, useAct, useListPreview } from '../../../data';
import { Card, Page, Pick, Refusals, Toggle, useKept, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { issuesOf } from '../../words';
import { Preview } from './Preview';
import { UnknownKinds } from './UnknownKinds';

interface Props {
  readonly id: string;
  readonly list: string;
  readonly plan: Plan;
  readonly sheets: readonly SheetSummary[];
  readonly onAgain: () => void;
  readonly onTaken: () => void;
}

type Columns = readonly (ColumnId | null)[];

interface Matched {
  readonly sheet: number;
  /** By sheet, once somebody chose. */
  readonly typed: Readonly<Record<number, Columns>>;
  readonly kindId: string | null;
  readonly subnetId: string | null;
  readonly kinds: readonly KindWords[];
  readonly isUpdate: boolean;
  readonly takesOut: boolean;
}

const NOTHING: Matched = {
  ...{ sheet: 0, typed: {}, kindId: null, subnetId: null, kinds: [] },
  ...{ isUpdate: false, takesOut: false },
};

const OPTIONS = [
  { value: null, title: IMPORT_WORDS.leaveItOut },
  ...LIST_COLUMNS.map(({ id, title }) => ({ value: id as ColumnId | null, title })),
];

/** Which column is what, guessed and to be corrected; below it what comes of the list. */
export function Matching({ id, list, plan, sheets, onAgain, onTaken }: Props) {
  const router = useRouter();
  const wide = useWide();
  const only = plan.subnets.length === 1 ? (plan.subnets[0]?.id ?? null) : null;
  const first = useMemo((): Matched => ({ ...NOTHING, subnetId: only }), [only]);
  const [matched, keep, forget] = useKept(`columns of ${list}`, first);
  const { sheet, typed, kindId, subnetId, kinds, isUpdate, takesOut } = matched;
  const set = (part: Partial<Matched>) => keep((all) => ({ ...all, ...part }));
  const shown = sheets[sheet];
  const guessed = useMemo(() => columnsOfList(plan, shown?.headings ?? []), [plan, shown]);
  const columns = typed[sheet] ?? guessed;
  const taking = useMemo(
    (): ListTaking => ({
      ...{ sheet, columns },
      defaults: { ...(kindId ? { kindId } : {}), ...(subnetId ? { subnetId } : {}), kinds },
      ...(isUpdate ? { update: { takesOut } } : {}),
    }),
    [sheet, columns, kindId, subnetId, kinds, isUpdate, takesOut],
  );
  const { data: preview, error } = useListPreview(id, list, taking);
  const take = useAct(acts.takeList, { job: id, list });
  const good = preview ? preview.count - preview.badLines : 0;
  const setColumn = (at: number, column: ColumnId | null) =>
    set({
      typed: {
        ...typed,
        // A column stands for one thing: whoever had it before gives it up.
        [sheet]: columns.map((one, index) => (index === at ? column : one === column ? null : one)),
      },
    });
  const done = () => {
    forget();
    onTaken();
    router.navigate(`/job/${id}/plan`);
  };
  return (
    <Page
      maxWidth={1140}
      action={
        <Button
          size="lg"
          title={
            isUpdate ? IMPORT_WORDS.bringThemUpToDate : takeWords(good, preview?.badLines ?? 0)
          }
          disabled={good === 0}
          loading={take.isPending}
          onPress={() => take.mutate(taking, { onSuccess: done })}
        />
      }
    >
      <Words size="title" heading={1}>
        {PLAN_WORDS.devicesFromAList}
      </Words>
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 24 }}>
        <View style={{ flex: wide ? 3 : undefined, gap: 12 }}>
          {sheets.length > 1 ? (
            <Pick
              label={IMPORT_WORDS.sheet}
              options={sheets.map((one, value) => ({
                value,
                title: IMPORT_WORDS.lines({ name: one.name, count: one.count }),
              }))}
              value={sheet}
              onChange={(next) => set({ sheet: next })}
            />
          ) : null}
          <Usual {...{ plan, kindId, subnetId, set }} />
          {plan.devices.length > 0 ? <Updating {...{ isUpdate, takesOut, set }} /> : null}
          <UnknownKinds
            {...{ plan, kinds }}
            unknown={preview?.unknownKinds ?? []}
            onChange={(next) => set({ kinds: next })}
          />
          {shown ? <ColumnCards sheet={shown} columns={columns} onChange={setColumn} /> : null}
        </View>
        <View style={{ flex: wide ? 2 : undefined }}>
          {preview ? <Preview preview={preview} /> : null}
        </View>
      </View>
      <Refusals issues={issuesOf(error ?? take.error)} />
      <Button type="outline" title={IMPORT_WORDS.chooseAnotherFile} onPress={onAgain} />
    </Page>
  );
}

type Set = (part: Partial<Matched>) => void;

/** What lines are taken for that say no kind or no subnet. */
function Usual({
  plan,
  kindId,
  subnetId,
  set,
}: Pick<Matched, 'kindId' | 'subnetId'> & { readonly plan: Plan; readonly set: Set }) {
  return (
    <Card>
      <Words size="strong">{IMPORT_WORDS.forLinesThatDoNotSay}</Words>
      <Pick
        label={PLAN_WORDS.kind}
        options={[
          { value: null, title: 'none' },
          ...kindsOf(plan).map((kind) => ({
            value: kind.id as string | null,
            ...{ title: kind.name, detail: kind.maker },
          })),
        ]}
        value={kindId}
        onChange={(next) => set({ kindId: next })}
      />
      <Pick
        label={COMMON_WORDS.subnet}
        options={[
          { value: null, title: IMPORT_WORDS.whereTheAddressSays },
          ...plan.subnets.map((one) => ({ value: one.id as string | null, title: one.name })),
        ]}
        value={subnetId}
        onChange={(next) => set({ subnetId: next })}
      />
    </Card>
  );
}

/** A list that came again is held against the devices that are there. */
function Updating({
  isUpdate,
  takesOut,
  set,
}: Pick<Matched, 'isUpdate' | 'takesOut'> & { readonly set: Set }) {
  return (
    <Card>
      <Toggle
        title={IMPORT_WORDS.bringTheDevicesUpToDate}
        isOn={isUpdate}
        onPress={() => set({ isUpdate: !isUpdate })}
      />
      <Words size="caption" tone="second">
        {IMPORT_WORDS.whoseALineIs}
      </Words>
      {isUpdate ? (
        <Toggle
          title={IMPORT_WORDS.takeOutWhatNoLineIsOf}
          isOn={takesOut}
          onPress={() => set({ takesOut: !takesOut })}
        />
      ) : null}
    </Card>
  );
}

function takeWords(good: number, bad: number): string {
  if (good === 0) return IMPORT_WORDS.noLineCanBeTakenYet;
  return bad === 0 ? IMPORT_WORDS.addDevice({ good }) : IMPORT_WORDS.addTheOtherDevice({ good });
}

interface ColumnProps {
  readonly sheet: SheetSummary;
  readonly columns: Columns;
  readonly onChange: (at: number, column: ColumnId | null) => void;
}

function ColumnCards({ sheet, columns, onChange }: ColumnProps) {
  const wide = useWide();
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
      {sheet.headings.map((heading, at) => (
        <View key={at} style={{ width: wide ? 300 : '100%' }}>
          <Card>
            <Pick
              label={heading || IMPORT_WORDS.column({ at: at + 1 })}
              options={OPTIONS}
              value={columns[at] ?? null}
              onChange={(column) => onChange(at, column)}
            />
            <Words size="caption" tone="second" lines={2}>
              {sheet.sample
                .map((line) => line[at] ?? '')
                .filter(Boolean)
                .join(', ') || 'empty'}
            </Words>
          </Card>
        </View>
      ))}
    </View>
  );
}
