import { formatIpv4 } from '@ipsonomo/core/net';
import { WAY_WORDS, type Device, type SwapStep } from '@ipsonomo/core/plan';
import { sentenceOf } from './refusals';
import { SWAP_WORDS } from './screens/swap';
import { switchWords } from './switches';

const RESTORED: Readonly<Record<NonNullable<Device['restores']>, string>> = {
  controller: SWAP_WORDS.itsControllerWritesItsParameters,
  card: SWAP_WORDS.itsParametersAreOnTheCard,
  'stored-set': SWAP_WORDS.loadTheStoredSetOfParameters,
  'by-hand': SWAP_WORDS.itsParametersAreTypedByHand,
};

/** One step of a swap: what to do, and more about it where there is more. */
export function swapStepWords(step: SwapStep): readonly [string, string?] {
  switch (step.kind) {
    case 'same-kind': {
      const { maker, name, orderNumber, revision } = step.device;
      const more = [
        orderNumber && SWAP_WORDS.orderNumber({ orderNumber }),
        revision && SWAP_WORDS.revision({ revision }),
      ];
      return [SWAP_WORDS.takeASpareOfTheSame({ maker, name }), more.filter(Boolean).join(', ')];
    }
    case 'first':
      return [step.words, SWAP_WORDS.beforeAnythingElse];
    case 'power-off':
      return [SWAP_WORDS.switchItsPowerOffAndTake];
    case 'cable':
      return step.isKey
        ? [SWAP_WORDS.plugTheNetworkCableIntoThe, SWAP_WORDS.thePortGivesTheAddress]
        : [SWAP_WORDS.plugTheNetworkCableInAs];
    case 'switches':
      return [
        SWAP_WORDS.setItsSwitchesAsDrawn,
        step.setting.ok
          ? switchWords(step.face, step.setting.value, step.network)
          : sentenceOf(step.setting.error),
      ];
    case 'card':
      return [SWAP_WORDS.putTheCardOfTheOld];
    case 'keypad':
      return [
        SWAP_WORDS.atItsKeypadType({ address: formatIpv4(step.address) }),
        step.steps.join(' · '),
      ];
    case 'power-on':
      return [SWAP_WORDS.switchItsPowerOn, SWAP_WORDS.itStartsInAboutS({ seconds: step.seconds })];
    case 'restart':
      return [
        SWAP_WORDS.switchItsPowerOffAndOnAgain,
        SWAP_WORDS.whatWasTypedCountsFromItsNextStart({ seconds: step.seconds }),
      ];
    case 'answered':
      return answeredWords(step);
    case 'laptop':
      return [
        SWAP_WORDS.withTheLaptopGiveItThe({ way: WAY_WORDS[step.way] }),
        step.name === undefined
          ? SWAP_WORDS.itsMacIsNewAndHas
          : SWAP_WORDS.andTheName({ name: step.name }),
      ];
    case 'parameters':
      return step.from === undefined
        ? [SWAP_WORDS.bringItsParametersBack, SWAP_WORDS.thePlanDoesNotSayFrom]
        : [RESTORED[step.from]];
    case 'password':
      return [SWAP_WORDS.itAsksForAPassword, SWAP_WORDS.kept({ at: step.at })];
    case 'look':
      return [SWAP_WORDS.lookWhetherAnswersAndItsController({ address: formatIpv4(step.address) })];
  }
}

/** Who has to give it the address. */
const answeredWords = ({
  by,
  name,
}: Extract<SwapStep, { kind: 'answered' }>): readonly [string, string?] => {
  if (by === 'controller') return [SWAP_WORDS.itsControllerFindsItUnderThe({ name })];
  const service =
    name === ''
      ? SWAP_WORDS.theDhcpServiceThatKnowsThe
      : SWAP_WORDS.theDhcpServiceThatKnowsTheRun({ name });
  return [SWAP_WORDS.waitUntilItHasItsAddress, service];
};
