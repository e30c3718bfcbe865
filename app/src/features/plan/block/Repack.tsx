import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { formatPrefix } from '@ipsonomo/core/net';
import type { Block, Plan, PlanDoc } from '@ipsonomo/core/plan';
import { editsOfRepack, type Moved, type Repacking } from '@ipsonomo/core/reshape';
import { useEdit } from '../../../data';
import { Notice, Refusals, Words } from '../../../parts';
import { issuesOf, plural } from '../../words';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly block: Block;
}

/** Packing anew moves subnets that exist: what moves is shown before anything does. */
export function Repack({ id, plan, doc, block }: Props) {
  const edit = useEdit(id);
  const [shown, setShown] = useState<Repacking>();
  if (!shown)
    return (
      <Button
        type="outline"
        title="Pack anew …"
        onPress={() => {
          const made = editsOfRepack(plan, doc, block, Date.now());
          if (made.ok) setShown(made.value);
        }}
      />
    );
  if (shown.moved.length === 0)
    return <Notice tone="moss">Packed anew, every need stays where it is.</Notice>;
  const addresses = shown.moved.reduce((sum, one) => sum + one.addresses, 0);
  return (
    <Notice tone="ochre" title={`${plural(shown.moved.length, 'need')} would move`}>
      <View style={{ gap: 8 }}>
        {shown.moved.map((one) => (
          <MovedLine key={one.name} moved={one} />
        ))}
        <Button
          title={`Move them, and ${plural(addresses, 'address', 'addresses')} with them`}
          loading={edit.isPending}
          onPress={() =>
            edit.mutate(
              { edits: shown.edits, why: `packed ${formatPrefix(block.prefix)} anew` },
              { onSuccess: () => setShown(undefined) },
            )
          }
        />
        <Button
          type="outline"
          title="Leave them where they are"
          onPress={() => setShown(undefined)}
        />
        <Refusals issues={issuesOf(edit.error)} />
      </View>
    </Notice>
  );
}

const MovedLine = ({ moved }: { readonly moved: Moved }) => (
  <Words size="second">
    {moved.name}: {formatPrefix(moved.before)} → {formatPrefix(moved.after)}
    {moved.addresses > 0 ? `, ${plural(moved.addresses, 'address', 'addresses')}` : ''}
  </Words>
);
