import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
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
      <Notice tone="plain" title={CALL_WORDS.keptAsSaidNotSeen}>
        {CALL_WORDS.itIsSeenAsSoonAs}
      </Notice>
    );
  if (!open)
    return (
      <Button
        type="outline"
        title={CALL_WORDS.itWasUsedBeforeSetIt}
        onPress={() => setOpen(true)}
      />
    );
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {COMMON_WORDS.setItBack}
      </Words>
      {kind && kind.setBack.length > 0 ? (
        <NumberedSteps label={CALL_WORDS.stepsToSetItBack} steps={kind.setBack} />
      ) : (
        <Words size="second" tone="second">
          {CALL_WORDS.itsKindDoesNotSayHow}
        </Words>
      )}
      <Words size="second" tone="second">
        {CALL_WORDS.ifAnotherControllerOwnsItRelease}
      </Words>
      <Field
        label={CALL_WORDS.whyIsItFreeToBe}
        value={reason}
        onChange={setReason}
        placeholder={CALL_WORDS.takenFromTheOldPressLine}
      />
      <Refusals issues={issuesOf(said.error)} />
      <Button
        title={CALL_WORDS.itIsSetBack}
        disabled={reason.trim() === ''}
        loading={said.isPending}
        onPress={() => said.mutate({ reason: reason.trim() }, { onSuccess: forget })}
      />
    </View>
  );
}
