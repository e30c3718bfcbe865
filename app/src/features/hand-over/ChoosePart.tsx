import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { interfacesInPart, WHOLE_JOB, type HandOverScope } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import { Card, Toggle, Words } from '../../parts';
import { toggled } from './toggled';

interface Props {
  readonly plan: Plan;
  readonly scope: HandOverScope;
  readonly onChoose: (scope: HandOverScope) => void;
}

/** The whole job, or chosen cabinets and subnets of it. */
export function ChoosePart({ plan, scope, onChoose }: Props) {
  const [isOpen, setOpen] = useState(false);
  const isWhole = scope.cabinets.length + scope.subnets.length === 0;
  const cabinets = [...new Set(plan.devices.map(({ cabinet }) => cabinet))].sort();
  return (
    <View style={{ gap: 8 }}>
      <Button
        type="outline"
        title={
          isWhole
            ? HAND_OVER_WORDS.chooseAPart
            : HAND_OVER_WORDS.aPart({ interfaces: interfacesInPart(plan, scope).length })
        }
        onPress={() => setOpen(!isOpen)}
      />
      {isOpen ? (
        <Card>
          <Toggle
            title={HAND_OVER_WORDS.theWholeJobLeaves}
            isOn={isWhole}
            onPress={() => onChoose(WHOLE_JOB)}
          />
          <Choices
            title={HAND_OVER_WORDS.cabinets}
            options={cabinets.map((id) => ({ id, title: id || HAND_OVER_WORDS.noCabinet }))}
            chosen={scope.cabinets}
            onChoose={(one) => onChoose({ ...scope, cabinets: toggled(scope.cabinets, one) })}
          />
          <Choices
            title={HAND_OVER_WORDS.subnets}
            options={plan.subnets.map(({ id, name }) => ({ id, title: name }))}
            chosen={scope.subnets}
            onChoose={(one) => onChoose({ ...scope, subnets: toggled(scope.subnets, one) })}
          />
        </Card>
      ) : null}
    </View>
  );
}

interface ChoicesProps {
  readonly title: string;
  readonly options: readonly { readonly id: string; readonly title: string }[];
  readonly chosen: readonly string[];
  readonly onChoose: (id: string) => void;
}

/** Several of many, each said or not. */
export function Choices({ title, options, chosen, onChoose }: ChoicesProps) {
  return (
    <View style={{ gap: 6 }}>
      <Words size="strong">{title}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {options.map(({ id, title: words }) => (
          <Toggle key={id} title={words} isOn={chosen.includes(id)} onPress={() => onChoose(id)} />
        ))}
      </View>
    </View>
  );
}
