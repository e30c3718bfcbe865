import { Button } from '@rneui/themed';
import { View } from 'react-native';
import type { Issue } from '@ipsonomo/core/net';
import type { ElementAnswer } from '@ipsonomo/core/plan';
import { KIND_FORM_WORDS } from '@ipsonomo/language/screens/kind-form';
import { Field, Pick, Words } from '../../../parts';

interface Props {
  readonly element: ElementAnswer;
  /** From 1, left to right. */
  readonly number: number;
  readonly issueOf: (field: string) => Issue | undefined;
  /** Undefined takes it away. */
  readonly onChange: (next: ElementAnswer | undefined) => void;
}

const USES = [
  { value: 'number', title: KIND_FORM_WORDS.theNumber },
  { value: 'mode', title: KIND_FORM_WORDS.theMode },
  { value: 'other', title: KIND_FORM_WORDS.nothingOfTheAddress },
] as const;

/** One dial or one row of DIP switches. */
export function ElementCard({ element, number, issueOf, onChange }: Props) {
  const isDial = element.kind === 'dial';
  const set = (part: Partial<ElementAnswer>) => onChange({ ...element, ...part });
  return (
    <View style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Words size="second" tone="second">
            {isDial ? KIND_FORM_WORDS.dial({ number }) : KIND_FORM_WORDS.rowOfDip({ number })}
          </Words>
        </View>
        <Button
          type="clear"
          title={KIND_FORM_WORDS.takeAway}
          accessibilityLabel={KIND_FORM_WORDS.takeAwaySwitch({ number })}
          onPress={() => onChange(undefined)}
        />
      </View>
      <Field
        label={KIND_FORM_WORDS.labelOf({ number })}
        value={element.label}
        onChange={(label) => set({ label })}
        placeholder="×10"
        issue={issueOf('label')}
      />
      {isDial ? (
        <Field
          label={KIND_FORM_WORDS.positionsOf({ number })}
          value={element.positions}
          onChange={(positions) => set({ positions })}
          issue={issueOf('positions')}
          numeric
        />
      ) : null}
      <Field
        label={
          isDial ? KIND_FORM_WORDS.weightOf({ number }) : KIND_FORM_WORDS.weightsOf({ number })
        }
        value={element.weights}
        onChange={(weights) => set({ weights })}
        issue={issueOf('weights')}
        figures
      />
      <Pick
        label={KIND_FORM_WORDS.whatItMakes({ number })}
        options={USES}
        value={element.use}
        onChange={(use) => set({ use })}
      />
    </View>
  );
}
