import type { SwapStep } from '@ipsonomo/core/plan';
import { swapStepWords } from '@ipsonomo/language/swap';
import { SwitchFace, Words } from '../../../parts';

/** One step of a swap, for somebody who does it at night and alone. */
export function StepWords({ step }: { readonly step: SwapStep }) {
  const [first, second] = swapStepWords(step);
  return (
    <>
      <Words size="strong">{first}</Words>
      {second ? (
        <Words size="second" tone="second">
          {second}
        </Words>
      ) : null}
      {step.kind === 'switches' && step.setting.ok ? (
        <SwitchFace face={step.face} positions={step.setting.value.positions} />
      ) : null}
    </>
  );
}
