import { correctionsOf, threeWays } from '@ipsonomo/core/entered';
import { findDevice } from '@ipsonomo/core/plan';
import { ENTERED_WORDS } from '@ipsonomo/language';
import { CORRECTION_HEADS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { csv } from '../../parts/csv';

/** R-SIDES: what the controller's programmer has to correct: what the project says otherwise than the plan. */
export const corrections: Format = {
  id: 'corrections',
  write: (material) => {
    const { plan, chosen } = material;
    const rows = chosen.flatMap(({ device, at }) =>
      device.interfaces[0] !== at
        ? []
        : correctionsOf(threeWays(plan, device, at, undefined)).map(
            ({ value, stands, becomes }) => [
              findDevice(plan, device.controllerId)?.title ?? '',
              ...[device.title, ENTERED_WORDS[value], stands, becomes],
            ],
          ),
    );
    const content = csv(CORRECTION_HEADS, rows);
    return { files: [{ name: fileName(material, 'corrections', '.csv'), content }], left: [] };
  },
};
