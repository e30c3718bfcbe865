import { Button } from '@rneui/themed';
import { View } from 'react-native';
import type { Issue } from '@ipsonomo/core/net';
import { BLOCK_WORDS } from '@ipsonomo/language/screens/block';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { AddressText, Card, Field, Refusals, Toggle, Words } from '../../../parts';
import { useWide } from '../../../theme';
import type { NeedDraft, Place } from './draft';

interface Props {
  readonly number: number;
  readonly need: NeedDraft;
  readonly issue: Issue | undefined;
  readonly place: Place | undefined;
  readonly onChange: (need: NeedDraft) => void;
  readonly onRemove: () => void;
}

/** One need of a block, and the network that it gets. */
export function NeedRow({ number, need, issue, place, onChange, onRemove }: Props) {
  const wide = useWide();
  const field = (name: keyof NeedDraft, label: string, flex: number, numeric = true) => (
    <View style={{ flex, minWidth: wide ? 0 : 90 }}>
      <Field
        label={label}
        value={String(need[name])}
        onChange={(text) => onChange({ ...need, [name]: text })}
        numeric={numeric}
      />
    </View>
  );
  return (
    <Card>
      <View style={{ flexDirection: 'row', flexWrap: wide ? 'nowrap' : 'wrap', columnGap: 10 }}>
        <View style={{ flex: 3, minWidth: wide ? 0 : 260 }}>
          <Field
            label={BLOCK_WORDS.need({ number })}
            value={need.name}
            onChange={(name) => onChange({ ...need, name })}
            placeholder={PLAN_WORDS.filterHall}
          />
        </View>
        {field('devices', COMMON_WORDS.devices, 1)}
        {field('growth', BLOCK_WORDS.growth, 1)}
        {field('held', BLOCK_WORDS.held, 1)}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
        {place ? <PlaceWords place={place} /> : null}
        <View style={{ flex: 1 }} />
        <Toggle
          title={BLOCK_WORDS.aWhole24}
          isOn={need.isWhole24}
          onPress={() => onChange({ ...need, isWhole24: !need.isWhole24 })}
        />
        <Button type="clear" title={PLAN_WORDS.remove} onPress={onRemove} />
      </View>
      <Refusals issues={issue ? [issue] : []} />
    </Card>
  );
}

function PlaceWords({ place }: { readonly place: Place }) {
  const [address = '', length = '24'] = place.network.split('/');
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 12 }}>
      {place.isPlaced ? (
        <AddressText still address={address} length={Number(length)} suffix={`/${length}`} />
      ) : (
        <Words size="strong" tone="brick">
          × {place.network}
        </Words>
      )}
      <Words size="second" tone={place.isPlaced ? 'second' : 'brick'}>
        {place.detail}
      </Words>
    </View>
  );
}
