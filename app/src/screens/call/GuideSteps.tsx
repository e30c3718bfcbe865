import { View } from 'react-native';
import { guideOf, type Kind, type Way } from '@ipsonomo/core';
import { Row, Words } from '../../parts';

/** What a person does at a device of this kind, in its order; what must be off comes first. */
export function GuideSteps({ kind, way }: { readonly kind: Kind | undefined; readonly way: Way }) {
  const guide = kind && guideOf(kind, way);
  const steps = guide ? [...guide.first, ...guide.steps] : [];
  if (steps.length === 0) return null;
  return (
    <View role="list" aria-label="Steps at the device">
      {steps.map((step, at) => (
        <Row key={step}>
          <View style={{ flexDirection: 'row', gap: 16 }}>
            <Words size="strong" tone="second">
              {at + 1}
            </Words>
            <View style={{ flex: 1 }}>
              <Words size="strong">{step}</Words>
              {guide && at < guide.first.length ? (
                <Words size="caption" tone="ochre">
                  this first
                </Words>
              ) : null}
            </View>
          </View>
        </Row>
      ))}
    </View>
  );
}
