import { lazy, Suspense } from 'react';
import { View } from 'react-native';
import { PickLabel, usePickBox, type PickProps } from './pick-look';
import { Words } from './Words';

export type { PickOption } from './pick-look';

// A fifth of the forms has one, and nobody's first page does.
const PickFrom = lazy(async () => ({ default: (await import('./PickFrom')).PickFrom }));

/** One of many: shows what is chosen, opens to choose another, by hand or by keys. */
export const Pick = <T,>(props: PickProps<T>) => (
  <Suspense fallback={<Shut {...(props as PickProps<unknown>)} />}>
    <PickFrom {...(props as PickProps<unknown>)} />
  </Suspense>
);

function Shut({ label, options, value }: PickProps<unknown>) {
  const chosen = options.find((one) => one.value === value);
  return (
    <View style={{ gap: 4 }}>
      <PickLabel>{label}</PickLabel>
      <View style={usePickBox(false)}>
        <Words lines={1}>{chosen?.title ?? '–'}</Words>
      </View>
    </View>
  );
}
