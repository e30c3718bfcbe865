import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { LIST_OUT, NO_OPTIONS, STOCKS, type HandOverOptions } from '@ipsonomo/core/api';
import { changeOf, findDoc, FIRST_SETTINGS, type Json, type PlanDoc } from '@ipsonomo/core/plan';
import { LIST_HEADS, STOCK_TITLES } from '@ipsonomo/language/hand-over-files';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import { useEdit } from '../../data';
import { Card, Field, Pick, Refusals, useKept, Words } from '../../parts';
import { issuesOf } from '../words';
import { Choices } from './ChoosePart';
import { toggled } from './toggled';

/** How the files look: columns, name server, sheet of labels; kept with the job. */
export function FileLooks({ id, doc }: { readonly id: string; readonly doc: PlanDoc }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <View style={{ gap: 8 }}>
      <Button
        type="outline"
        title={HAND_OVER_WORDS.howTheFilesLook}
        onPress={() => setOpen(!isOpen)}
      />
      {isOpen ? <Looks id={id} doc={doc} /> : null}
    </View>
  );
}

function Looks({ id, doc }: { readonly id: string; readonly doc: PlanDoc }) {
  const edit = useEdit(id);
  const settings = findDoc(doc, 'settings', FIRST_SETTINGS.id);
  const kept = { ...NO_OPTIONS, ...(settings?.['handOver'] as Partial<HandOverOptions> | null) };
  const [now, setNow, forget] = useKept<HandOverOptions>(`how files look ${id}`, kept);
  const set = (fields: Partial<HandOverOptions>) => setNow({ ...now, ...fields });
  const keep = () => {
    if (!settings) return;
    const edits = changeOf('settings', settings, { handOver: now as unknown as Json });
    edit.mutate({ edits, why: HAND_OVER_WORDS.chosenHowFilesLook }, { onSuccess: forget });
  };
  return (
    <Card>
      <Choices
        title={HAND_OVER_WORDS.columnsInTheirOrder}
        options={LIST_OUT.map((one) => ({ id: one, title: titleOf(one, now.columns) }))}
        chosen={now.columns}
        onChoose={(one) => set({ columns: toggled(now.columns, one) })}
      />
      {now.columns.length === 0 ? (
        <Words size="second" tone="second">
          {HAND_OVER_WORDS.noneIsAllOfThem}
        </Words>
      ) : null}
      <Field
        label={HAND_OVER_WORDS.nameServer}
        value={now.nameServer}
        onChange={(nameServer) => set({ nameServer })}
      />
      <Pick
        label={HAND_OVER_WORDS.sheetOfLabels}
        options={STOCKS.map((one) => ({ value: one.id, title: STOCK_TITLES[one.id] ?? one.id }))}
        value={now.sheet}
        onChange={(sheet) => set({ sheet })}
      />
      <Field
        label={HAND_OVER_WORDS.firstSticker}
        value={String(now.firstSticker)}
        onChange={(text) => set({ firstSticker: Math.max(1, Number(text.replace(/\D/g, ''))) })}
        numeric
      />
      <Refusals issues={issuesOf(edit.error)} />
      <Button title={HAND_OVER_WORDS.keepIt} loading={edit.isPending} onPress={keep} />
    </Card>
  );
}

const titleOf = (one: (typeof LIST_OUT)[number], chosen: readonly string[]): string => {
  const place = chosen.indexOf(one);
  return place < 0 ? LIST_HEADS[one] : `${place + 1} ${LIST_HEADS[one]}`;
};
