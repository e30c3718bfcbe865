import { sentenceOf, switchWords } from '@ipsonomo/language';
import { type Device, type SwapStep, WAY_WORDS } from '@ipsonomo/core/plan';
import { formatIpv4 } from '@ipsonomo/core/net';
import { SwitchFace, Words } from '../../../parts';

const RESTORED: Readonly<Record<NonNullable<Device['restores']>, string>> = {
  controller: 'Its controller writes its parameters back when it connects.',
  card: 'Its parameters are on the card.',
  'stored-set': 'Load the stored set of parameters into it.',
  'by-hand': 'Its parameters are typed by hand: take the list along.',
};

/** One step of a swap, for somebody who does it at night and alone. */
export function StepWords({ step }: { readonly step: SwapStep }) {
  const [first, second] = wordsOf(step);
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

function wordsOf(step: SwapStep): readonly [string, string?] {
  switch (step.kind) {
    case 'same-kind': {
      const { maker, name, orderNumber, revision } = step.device;
      const more = [
        orderNumber && `order number ${orderNumber}`,
        revision && `revision ${revision}`,
      ];
      return [`Take a spare of the same kind: ${maker} ${name}`, more.filter(Boolean).join(', ')];
    }
    case 'first':
      return [step.words, 'before anything else'];
    case 'power-off':
      return ['Switch its power off and take the old one out'];
    case 'cable':
      return step.isKey
        ? [
            'Plug the network cable into the same switch port as before',
            'The port gives the address.',
          ]
        : ['Plug the network cable in as it was'];
    case 'switches':
      return [
        'Set its switches as drawn',
        step.setting.ok
          ? switchWords(step.face, step.setting.value, step.network)
          : sentenceOf(step.setting.error),
      ];
    case 'card':
      return ['Put the card of the old one into it'];
    case 'keypad':
      return [`At its keypad, type ${formatIpv4(step.address)}`, step.steps.join(' · ')];
    case 'power-on':
      return ['Switch its power on', `It starts in about ${step.seconds} s.`];
    case 'answered':
      return step.by === 'controller'
        ? [`Its controller finds it under the name ${step.name} and gives it the address`]
        : [
            'Wait until it has its address',
            step.name === ''
              ? 'The DHCP service that knows the port has to run.'
              : `The DHCP service that knows the name ${step.name} has to run.`,
          ];
    case 'laptop':
      return [
        `With the laptop, give it the address: ${WAY_WORDS[step.way]}`,
        step.name === undefined
          ? 'Its MAC is new and has to be bound.'
          : `and the name ${step.name}`,
      ];
    case 'parameters':
      return step.from === undefined
        ? ['Bring its parameters back', 'The plan does not say from where. Write it down there.']
        : [RESTORED[step.from]];
    case 'password':
      return ['It asks for a password', `Kept: ${step.at}`];
    case 'look':
      return [`Look whether ${formatIpv4(step.address)} answers and its controller is content`];
  }
}
