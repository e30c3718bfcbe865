import { useCombobox, useSelect } from 'downshift';
import { useState } from 'react';
import { TextInput, View } from 'react-native';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { TOUCH, TYPE, useColours } from '../theme';
import { PickLabel, usePickBox, type PickOption, type PickProps } from './pick-look';
import { Words } from './Words';

/** From so many on, a part of the name is typed. */
const MANY = 9;
const MOST = 40;

/** The same as {@link Pick}, which loads it. */
export function PickFrom<T>(props: PickProps<T>) {
  return props.options.length >= MANY ? <Searched {...props} /> : <Listed {...props} />;
}

const titleOf = (option: PickOption<unknown> | null): string => option?.title ?? '';

function Listed<T>({ label, options, value, onChange }: PickProps<T>) {
  const chosen = options.find((one) => one.value === value);
  const select = useSelect<PickOption<T>>({
    items: [...options],
    selectedItem: chosen ?? null,
    itemToString: titleOf,
    onSelectedItemChange({ selectedItem }) {
      if (selectedItem) onChange(selectedItem.value);
    },
  });
  const named = { 'aria-label': `${label}: ${chosen?.title ?? PARTS_WORDS.nothingChosen}` };
  return (
    <View style={{ gap: 4 }}>
      <PickLabel>{label}</PickLabel>
      <View {...(select.getToggleButtonProps(named) as object)} style={usePickBox(select.isOpen)}>
        <Words lines={1}>{chosen?.title ?? '–'}</Words>
      </View>
      <Menu {...{ label, value, options }} of={select} />
    </View>
  );
}

function Searched<T>({ label, options, value, onChange }: PickProps<T>) {
  const colours = useColours();
  const chosen = options.find((one) => one.value === value) ?? null;
  const [wanted, setWanted] = useState('');
  const words = wanted.trim().toLowerCase();
  const isAll = wanted === titleOf(chosen);
  const found = options.filter(
    (one) => isAll || `${one.title} ${one.detail ?? ''}`.toLowerCase().includes(words),
  );
  const combobox = useCombobox<PickOption<T>>({
    items: found.slice(0, MOST),
    selectedItem: chosen,
    itemToString: titleOf,
    onInputValueChange: ({ inputValue }) => setWanted(inputValue),
    onSelectedItemChange({ selectedItem }) {
      if (selectedItem) onChange(selectedItem.value);
    },
    // Opened it waits for a part of a name; shut it says what is chosen, whatever was typed.
    stateReducer: (before, { changes, type }) => {
      if (changes.isOpen === false)
        return { ...changes, inputValue: titleOf(changes.selectedItem ?? chosen) };
      const isTyped = type === useCombobox.stateChangeTypes.InputChange;
      return !before.isOpen && !isTyped ? { ...changes, inputValue: '' } : changes;
    },
  });
  // What React Native calls a press of a key is the browser's key that goes down.
  const { onKeyDown: onKeyPress, ...input } = combobox.getInputProps({ 'aria-label': label });
  return (
    <View style={{ gap: 4 }}>
      <PickLabel>{label}</PickLabel>
      <View>
        <TextInput
          {...({ ...input, onKeyPress } as object)}
          placeholder={titleOf(chosen) || PARTS_WORDS.aPartOfItsName}
          placeholderTextColor={colours.second}
          autoCapitalize="none"
          autoCorrect={false}
          spellCheck={false}
          style={[TYPE.body, { color: colours.ink }, usePickBox(combobox.isOpen)]}
        />
      </View>
      <Menu {...{ label, value, options: found }} of={combobox} />
    </View>
  );
}

interface MenuProps<T> extends Omit<PickProps<T>, 'onChange'> {
  readonly of: {
    readonly isOpen: boolean;
    readonly highlightedIndex: number;
    readonly getMenuProps: (more: { readonly 'aria-label': string }) => unknown;
    readonly getItemProps: (of: { item: PickOption<T>; index: number }) => unknown;
  };
}

function Menu<T>({ label, value, options, of }: MenuProps<T>) {
  const colours = useColours();
  const { isOpen, highlightedIndex, getMenuProps, getItemProps } = of;
  const open = { borderWidth: 1, borderColor: colours.line, borderRadius: 8, padding: 8, gap: 2 };
  return (
    <>
      <View
        {...(getMenuProps({ 'aria-label': label }) as object)}
        style={isOpen ? open : { display: 'none' }}
      >
        {isOpen
          ? options.slice(0, MOST).map((one, index) => (
              <View
                key={one.title}
                {...(getItemProps({ item: one, index }) as object)}
                style={{
                  minHeight: TOUCH,
                  justifyContent: 'center',
                  paddingHorizontal: 8,
                  borderRadius: 4,
                  backgroundColor: index === highlightedIndex ? colours.idle : 'transparent',
                }}
              >
                <Words size={one.value === value ? 'strong' : 'body'}>{one.title}</Words>
                {one.detail ? (
                  <Words size="caption" tone="second">
                    {one.detail}
                  </Words>
                ) : null}
              </View>
            ))
          : null}
      </View>
      {isOpen && options.length > MOST ? (
        <Words size="caption" tone="second">
          {PARTS_WORDS.andMoreTypeAPartOf({ options: options.length - MOST })}
        </Words>
      ) : null}
    </>
  );
}
