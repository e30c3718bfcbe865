import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { WHOLE_JOB, type FormatId } from '@ipsonomo/core/api';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { usePackage } from '../../../data';
import { Card, Words } from '../../../parts';
import { PackageCard } from '../../hand-over';

interface Props {
  readonly job: string;
  readonly interfaceId: string;
  /** Something of the device is wrong in the plan, and is told above. */
  readonly isWrong: boolean;
}

const LABELS: readonly (readonly [FormatId, string])[] = [
  ['labels-svg', PLAN_WORDS.labelAsSvg],
  ['labels-png', PLAN_WORDS.labelAsPng],
];

/** The label of one device, for whoever stands before it with a label printer. */
export function DeviceLabel({ job, interfaceId, isWrong }: Props) {
  const made = usePackage(job);
  const take = (format: FormatId) =>
    made.begin({
      formats: [format],
      scope: { ...WHOLE_JOB, interfaces: [interfaceId] },
      despite: isWrong,
    });
  return (
    <Card>
      <Words size="strong" heading={3}>
        {PLAN_WORDS.itsLabel}
      </Words>
      <Words size="second" tone="second">
        {isWrong ? PLAN_WORDS.itsLabelAsItStands : PLAN_WORDS.itsLabelSays}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {LABELS.map(([format, title]) => (
          <Button
            key={format}
            type="outline"
            title={title}
            disabled={made.isBusy}
            onPress={() => take(format)}
          />
        ))}
      </View>
      <PackageCard made={made} onTook={made.end} />
    </Card>
  );
}
