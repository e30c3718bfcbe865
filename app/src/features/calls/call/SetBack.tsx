import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { acts, useAct } from '../../../data';
import { Field, Notice, Refusals, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';
import { NumberedSteps } from './GuideSteps';
import type { Call } from './CallPage';

/**
 * A device that was used before keeps its address, and perhaps an owner: set back the way of its kind, one at a
 * time, with who says it is free and why.
 */
export function SetBack({ call }: { readonly call: Call }) {
  const { job, at, kind } = call;
  const said = useAct(acts.saySetBack, { job, interface: at.id });
  const [open, setOpen] = useState(false);
  const [reason, setReason, forget] = useDraft(`set back ${at.id}`);
  if (said.isSuccess)
    return (
      <Notice tone="plain" title="Kept as said, not seen">
        It is seen as soon as it asks, or comes up as it left its maker.
      </Notice>
    );
  if (!open)
    return (
      <Button
        type="outline"
        title="It was used before: set it back"
        onPress={() => setOpen(true)}
      />
    );
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        Set it back
      </Words>
      {kind && kind.setBack.length > 0 ? (
        <NumberedSteps label="Steps to set it back" steps={kind.setBack} />
      ) : (
        <Words size="second" tone="second">
          Its kind does not say how: look in its papers.
        </Words>
      )}
      <Words size="second" tone="second">
        If another controller owns it, release it there first.
      </Words>
      <Field
        label="Why is it free to be set back?"
        value={reason}
        onChange={setReason}
        placeholder="taken from the old press line"
      />
      <Refusals issues={issuesOf(said.error)} />
      <Button
        title="It is set back"
        disabled={reason.trim() === ''}
        loading={said.isPending}
        onPress={() => said.mutate({ reason: reason.trim() }, { onSuccess: forget })}
      />
    </View>
  );
}
