import type { Table } from '@tanstack/react-table';
import { Pressable, TextInput, View, type ViewStyle } from 'react-native';
import type { SheetRow } from '@ipsonomo/core/sheet';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import { Words } from '../../parts';
import { TYPE, useColours, WORDS } from '../../theme';
import { GRID_COLUMNS, GRID_WIDTH, PINNED } from './grid-columns';

interface Props {
  readonly table: Table<SheetRow>;
  /** Fields under the headings narrow the list down. */
  readonly isFiltering: boolean;
}

const sticky = (place: object): ViewStyle =>
  ({ position: 'sticky', ...place }) as unknown as ViewStyle;

/** The headings: pressed to sort, once more the other way, once more as planned. */
export function SheetHead({ table, isFiltering }: Props) {
  const colours = useColours();
  return (
    <View
      style={[
        sticky({ top: 0, zIndex: 3 }),
        {
          width: GRID_WIDTH,
          backgroundColor: colours.ground,
          borderBottomWidth: 1,
          borderBottomColor: colours.ink,
        },
      ]}
    >
      <View role="row" style={{ flexDirection: 'row' }}>
        {GRID_COLUMNS.map(({ id, title, width }) => {
          const column = table.getColumn(id);
          const sorted = column?.getIsSorted();
          const pinned =
            id === PINNED
              ? [sticky({ left: 0, zIndex: 1 }), { backgroundColor: colours.ground }]
              : [];
          return (
            <Pressable
              key={id}
              role="columnheader"
              aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
              onPress={column?.getCanSort() ? () => column.toggleSorting() : null}
              style={[
                { width, height: 36, justifyContent: 'center', paddingHorizontal: 8 },
                ...pinned,
              ]}
            >
              <Words size="caption" tone={sorted ? 'plum' : 'second'} lines={1}>
                {title}
                {sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}
              </Words>
            </Pressable>
          );
        })}
      </View>
      {isFiltering ? <Filters table={table} /> : null}
    </View>
  );
}

function Filters({ table }: Pick<Props, 'table'>) {
  const colours = useColours();
  return (
    <View style={{ flexDirection: 'row', paddingBottom: 4 }}>
      {GRID_COLUMNS.map(({ id, title, width, column: typed }) => {
        const column = table.getColumn(id);
        const pinned =
          id === PINNED
            ? [sticky({ left: 0, zIndex: 1 }), { backgroundColor: colours.ground }]
            : [];
        return (
          <View key={id} style={[{ width, paddingHorizontal: 4 }, ...pinned]}>
            {typed ? (
              <TextInput
                accessibilityLabel={SHEET_WORDS.onlyWhereHolds({ title })}
                value={String(column?.getFilterValue() ?? '')}
                onChangeText={(text) => column?.setFilterValue(text === '' ? undefined : text)}
                style={{
                  height: 30,
                  paddingHorizontal: 6,
                  borderWidth: 1,
                  borderColor: colours.second,
                  borderRadius: 4,
                  backgroundColor: colours.surface,
                  color: colours.ink,
                  fontFamily: WORDS,
                  fontSize: TYPE.caption.fontSize,
                }}
              />
            ) : null}
          </View>
        );
      })}
    </View>
  );
}
