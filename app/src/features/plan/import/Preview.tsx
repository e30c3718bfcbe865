import { View } from 'react-native';
import type { ListPreview, UpdatePreview } from '@ipsonomo/core/api';
import { sentenceOf } from '@ipsonomo/language';
import { columnOf } from '@ipsonomo/core/sheet';
import { IMPORT_WORDS } from '@ipsonomo/language/screens/import';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { AddressText, Words } from '../../../parts';
import { useColours } from '../../../theme';

/** What would come of the list: every bad cell by its line, then the devices. */
export function Preview({ preview }: { readonly preview: ListPreview }) {
  const colours = useColours();
  const { count, badLines, bad, devices, wrong, update } = preview;
  return (
    <View style={{ gap: 8 }}>
      <Words size="device" heading={2}>
        {IMPORT_WORDS.lineOfThemGood({ count, count2: count - badLines })}
      </Words>
      {wrong > 0 ? (
        <Words tone="brick">{IMPORT_WORDS.theyWouldBringWrongSnagInto({ wrong })}</Words>
      ) : null}
      {update ? <Updated update={update} /> : null}
      {bad.map((one) => (
        <View
          key={`${one.row}|${one.column}`}
          style={{ borderTopWidth: 3, borderTopColor: colours.brick, paddingTop: 4 }}
        >
          <Words size="second">
            {IMPORT_WORDS.line({
              row: one.line,
              title: columnOf(one.column).title,
              text: one.text === '' ? '' : ` “${one.text}”`,
            })}
          </Words>
          <Words size="second" tone="brick">
            {sentenceOf(one.issue)}
          </Words>
        </View>
      ))}
      {devices.map((one, index) => (
        <View
          key={index}
          style={{
            flexDirection: 'row',
            gap: 12,
            paddingVertical: 6,
            borderTopWidth: 1,
            borderTopColor: colours.line,
          }}
        >
          <View style={{ flex: 1 }}>
            <Words size="second">{one.title}</Words>
            <Words size="caption" tone="second">
              {one.name} · {one.kind} · {one.subnet}
            </Words>
          </View>
          <AddressText still size="small" address={one.address} />
        </View>
      ))}
      {!update && count - badLines > devices.length ? (
        <Words size="second" tone="second">
          {PLAN_WORDS.andMore({ count: count - badLines - devices.length })}
        </Words>
      ) : null}
    </View>
  );
}

const SHOWN = 20;

/** What a list that comes again changes: new, changed cell by cell, gone. */
function Updated({ update }: { readonly update: UpdatePreview }) {
  const { added, changed, same, gone, changes, leaving } = update;
  return (
    <View style={{ gap: 4 }}>
      <Words size="strong">{IMPORT_WORDS.newChangedSameGone({ added, changed, same, gone })}</Words>
      {changes.map(({ row, line, title, cells }) => (
        <View key={row} style={{ gap: 1 }}>
          <Words size="second">{IMPORT_WORDS.changesOfLine({ line, title })}</Words>
          {cells.map(({ column, from, to }) => (
            <Words key={column} size="caption">
              {`${columnOf(column).title}: ${from || '–'} → ${to}`}
            </Words>
          ))}
        </View>
      ))}
      {leaving.length > 0 ? (
        <Words size="second" tone="ochre">
          {IMPORT_WORDS.noLineIsOf({
            titles: leaving.slice(0, SHOWN).join(', '),
            more: Math.max(0, gone - SHOWN),
          })}
        </Words>
      ) : null}
    </View>
  );
}
