import { Button } from '@rneui/themed';
import { useMemo } from 'react';
import { cardFile, findInterface } from '@ipsonomo/core/plan';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { saveText } from '../../../data';
import { Card, Refusals, Words } from '../../../parts';
import type { Call } from './CallPage';

/** R-CARD: the file that its memory card needs, where its kind says what stands in it. */
export function CardFileOf({ call }: { readonly call: Call }) {
  const { plan, kind, at, device } = call;
  const form = device.way === 'card' ? kind?.card : undefined;
  const file = useMemo(() => {
    const planned = findInterface(plan, at.id);
    return form && planned ? cardFile(plan, form, planned.device, planned.at) : undefined;
  }, [plan, form, at.id]);
  if (!file) return null;
  if (!file.ok) return <Refusals issues={[file.error]} />;
  const { name, text, where } = file.value;
  return (
    <Card strong>
      <Words size="strong" heading={2}>
        {CALL_WORDS.itsCardGetsThisFile({ name })}
      </Words>
      {where === '' ? null : <Words size="second">{where}</Words>}
      <Words size="second">{text.trimEnd()}</Words>
      <Button
        title={CALL_WORDS.saveTheFile({ name })}
        onPress={() => saveText(name, 'application/octet-stream', text)}
      />
    </Card>
  );
}
