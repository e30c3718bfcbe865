import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { formatPrefix } from '@ipsonomo/core/net';
import type { Block, Plan, PlanDoc } from '@ipsonomo/core/plan';
import { editsOfRepack, type Moved, type Repacking } from '@ipsonomo/core/reshape';
import { BLOCK_WORDS } from '@ipsonomo/language/screens/block';
import { useEdit } from '../../../data';
import { Notice, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';

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
        title={BLOCK_WORDS.packAnew}
        onPress={() => {
          const made = editsOfRepack(plan, doc, block, Date.now());
          if (made.ok) setShown(made.value);
        }}
      />
    );
  if (shown.moved.length === 0)
    return <Notice tone="moss">{BLOCK_WORDS.packedAnewEveryNeedStaysWhere}</Notice>;
  const addresses = shown.moved.reduce((sum, one) => sum + one.addresses, 0);
  return (
    <Notice tone="ochre" title={BLOCK_WORDS.needWouldMove({ moved: shown.moved.length })}>
      <View style={{ gap: 8 }}>
        {shown.moved.map((one) => (
          <MovedLine key={one.name} moved={one} />
        ))}
        <Button
          title={BLOCK_WORDS.moveThemAndAddressWithThem({ addresses })}
          loading={edit.isPending}
          onPress={() =>
            edit.mutate(
              {
                edits: shown.edits,
                why: BLOCK_WORDS.packedAnew({ prefix: formatPrefix(block.prefix) }),
              },
              { onSuccess: () => setShown(undefined) },
            )
          }
        />
        <Button
          type="outline"
          title={BLOCK_WORDS.leaveThemWhereTheyAre}
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
    {moved.addresses > 0 ? BLOCK_WORDS.address({ addresses: moved.addresses }) : ''}
  </Words>
);
