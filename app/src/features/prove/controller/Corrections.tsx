import { Button } from '@rneui/themed';
import { View } from 'react-native';
import type { Correction } from '@ipsonomo/core/entered';
import { findDevice, type Device, type Plan } from '@ipsonomo/core/plan';
import { formatCells } from '@ipsonomo/core/sheet';
import { ENTERED_WORDS } from '@ipsonomo/language';
import { CONTROLLER_WORDS } from '@ipsonomo/language/screens/controller';
import { Card, Words } from '../../../parts';
import { useCopied } from '../../../parts/use-copied';

export interface ToCorrect {
  readonly device: Device;
  readonly corrections: readonly Correction[];
}

/** What the controller's programmer has to correct, as it stands now: the list to send along. */
export function Corrections({
  plan,
  entries,
}: {
  readonly plan: Plan;
  readonly entries: readonly ToCorrect[];
}) {
  const lines = entries.flatMap(({ device, corrections }) =>
    corrections.map(({ value, stands, becomes }) => [
      findDevice(plan, device.controllerId)?.title ?? '',
      ...[device.title, ENTERED_WORDS[value], stands, becomes],
    ]),
  );
  const { said, copy } = useCopied(
    formatCells([CONTROLLER_WORDS.headsOfCorrections.split(', '), ...lines]),
  );
  if (lines.length === 0) return null;
  return (
    <Card strong>
      <Words size="device" heading={2}>
        {CONTROLLER_WORDS.toCorrectInTheProject({ lines: lines.length })}
      </Words>
      <Words size="second" tone="second">
        {CONTROLLER_WORDS.thePlanSaysOtherwise}
      </Words>
      {entries.map(({ device, corrections }) =>
        corrections.length === 0 ? null : (
          <View key={device.id} style={{ gap: 1 }}>
            <Words size="strong">{device.title}</Words>
            {corrections.map(({ value, stands, becomes }) => (
              <Words key={value} size="second">
                {CONTROLLER_WORDS.correctInto({ value: ENTERED_WORDS[value], stands, becomes })}
              </Words>
            ))}
          </View>
        ),
      )}
      <Button
        type="outline"
        title={said ?? CONTROLLER_WORDS.copyTheListForTheProgrammer}
        onPress={copy}
      />
    </Card>
  );
}
