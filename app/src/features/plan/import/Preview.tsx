import { View } from 'react-native';
import type { ListPreview } from '@ipsonomo/core/api';
import { sentenceOf } from '@ipsonomo/language';
import { columnOf } from '@ipsonomo/core/sheet';
import { IMPORT_WORDS } from '@ipsonomo/language/screens/import';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { AddressText, Words } from '../../../parts';
import { useColours } from '../../../theme';

/** What would come of the list: every bad cell by its line, then the devices. */
export function Preview({ preview }: { readonly preview: ListPreview }) {
  const colours = useColours();
  const { count, badLines, bad, devices, wrong } = preview;
  return (
    <View style={{ gap: 8 }}>
      <Words size="device" heading={2}>
        {IMPORT_WORDS.lineOfThemGood({ count, count2: count - badLines })}
      </Words>
      {wrong > 0 ? (
        <Words tone="brick">{IMPORT_WORDS.theyWouldBringWrongSnagInto({ wrong })}</Words>
      ) : null}
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
      {count - badLines > devices.length ? (
        <Words size="second" tone="second">
          {PLAN_WORDS.andMore({ count: count - badLines - devices.length })}
        </Words>
      ) : null}
    </View>
  );
}
