import { View } from 'react-native';
import { guideOf, type Kind, type Way } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { Row, Words } from '../../../parts';

interface StepsProps {
  readonly label: string;
  readonly steps: readonly string[];
  /** How many of them have to be done before all else. */
  readonly first?: number;
}

/** What a person does, one after the other. */
export function NumberedSteps({ label, steps, first = 0 }: StepsProps) {
  return (
    <View role="list" aria-label={label}>
      {steps.map((step, at) => (
        <Row key={step} isItem>
          <View style={{ flexDirection: 'row', gap: 16 }}>
            <Words size="strong" tone="second">
              {at + 1}
            </Words>
            <View style={{ flex: 1 }}>
              <Words size="strong">{step}</Words>
              {at < first ? (
                <Words size="caption" tone="ochre">
                  {CALL_WORDS.thisFirst}
                </Words>
              ) : null}
            </View>
          </View>
        </Row>
      ))}
    </View>
  );
}

/** What a person does at a device of this kind, in its order; what must be off comes first. */
export function GuideSteps({ kind, way }: { readonly kind: Kind | undefined; readonly way: Way }) {
  const guide = kind && guideOf(kind, way);
  const steps = guide ? [...guide.first, ...guide.steps] : [];
  if (!guide || steps.length === 0) return null;
  return (
    <NumberedSteps label={CALL_WORDS.stepsAtTheDevice} steps={steps} first={guide.first.length} />
  );
}
