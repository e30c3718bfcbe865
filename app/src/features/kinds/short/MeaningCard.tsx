import { Button } from '@rneui/themed';
import { View } from 'react-native';
import type { Issue } from '@ipsonomo/core/net';
import { ACT_ANSWERS, type MeaningAnswer } from '@ipsonomo/core/plan';
import { KIND_FORM_WORDS } from '@ipsonomo/language/screens/kind-form';
import { Field, Pick } from '../../../parts';

interface Props {
  readonly meaning: MeaningAnswer;
  /** From 1; the first that holds counts. */
  readonly number: number;
  /** Some switches make a mode. */
  readonly hasMode: boolean;
  readonly issueOf: (field: string) => Issue | undefined;
  /** Undefined takes it away. */
  readonly onChange: (next: MeaningAnswer | undefined) => void;
}

const ACT_WORDS: Readonly<Record<MeaningAnswer['act'], string>> = {
  'last-number': KIND_FORM_WORDS.isTheLastNumber,
  'host-part': KIND_FORM_WORDS.isAddedToTheNetwork,
  name: KIND_FORM_WORDS.makesItsName,
  'asks-bootp': KIND_FORM_WORDS.asksByBootp,
  'asks-dhcp': KIND_FORM_WORDS.asksByDhcp,
  fixed: KIND_FORM_WORDS.hasAnAddress,
  stored: KIND_FORM_WORDS.theStoredAddressCounts,
  factory: KIND_FORM_WORDS.backToTheMakersState,
  locked: KIND_FORM_WORDS.storedAndLocked,
};

const ACTS = ACT_ANSWERS.map((value) => ({ value, title: ACT_WORDS[value] }));

/** What some values of the switches mean. */
export function MeaningCard({ meaning, number, hasMode, issueOf, onChange }: Props) {
  const set = (part: Partial<MeaningAnswer>) => onChange({ ...meaning, ...part });
  const text =
    meaning.act === 'fixed'
      ? KIND_FORM_WORDS.whichAddress({ number })
      : meaning.act === 'name'
        ? KIND_FORM_WORDS.whichName({ number, place: '{nnn}' })
        : undefined;
  return (
    <View style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Field
            label={KIND_FORM_WORDS.fromValue({ number })}
            value={meaning.from}
            onChange={(from) => set({ from })}
            issue={issueOf('from')}
            numeric
          />
        </View>
        <View style={{ flex: 1 }}>
          <Field
            label={KIND_FORM_WORDS.toValue({ number })}
            value={meaning.to}
            onChange={(to) => set({ to })}
            issue={issueOf('to')}
            numeric
          />
        </View>
      </View>
      {hasMode ? (
        <Field
          label={KIND_FORM_WORDS.onlyInMode({ number })}
          value={meaning.mode}
          onChange={(mode) => set({ mode })}
          issue={issueOf('mode')}
          numeric
        />
      ) : null}
      <Pick
        label={KIND_FORM_WORDS.meaningOf({ number })}
        options={ACTS}
        value={meaning.act}
        onChange={(act) => set({ act })}
      />
      {text === undefined ? null : (
        <Field
          label={text}
          value={meaning.text}
          onChange={(next) => set({ text: next })}
          issue={issueOf('text')}
          figures
        />
      )}
      <Button
        type="clear"
        title={KIND_FORM_WORDS.takeAwayMeaning({ number })}
        containerStyle={{ alignSelf: 'flex-start' }}
        onPress={() => onChange(undefined)}
      />
    </View>
  );
}
