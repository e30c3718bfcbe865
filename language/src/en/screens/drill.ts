import { messages } from '../../message';

export const DRILL_WORDS = messages({
  whatComesBackNowMayHave:
    'What comes back now may have been helped by that. Begin again, and send nothing meanwhile.',
  ipsonomoItselfHasSentSomething: 'Ipsonomo itself has sent something',
  ipsonomoFallsSilentYouSwitchThe:
    'Ipsonomo falls silent, you switch the cabinet off and on, and it shows who comes back by itself.',
  nothingIsSentNowSwitchThe:
    'Nothing is sent now. Switch the cabinet off, count to ten, and switch it on.',
  listeningWaitUntilNothingNewComes:
    'Listening. Wait until nothing new comes: the slowest of your kinds needs longest.',
  whatCameBackAsItWas: 'What came back, as it was kept with each device.',
  itEnded: 'It ended.',
  beginFallSilentAndListen: 'Begin: fall silent and listen',
  itIsOnAgain: 'It is on again',
  allThatWillComeIsBack: 'All that will come is back',
  beginAnother: 'Begin another',
  beginAgain: 'Begin again',
  sDeviceSpokeOfBoundDevice:
    '{seconds} s · {rows, plural, one {# device} other {# devices}} spoke · {bad} of {all, plural, one {# bound device} other {# bound devices}} did not come back by itself',
  aColdStartTellsAboutDevices:
    'A cold start tells about devices whose MAC is known. Bind them first.',
  noDeviceIsBoundYet: 'No device is bound yet',
  otherSpokeThatNoDeviceOf:
    '{strangers, plural, one {# other} other {# others}} spoke that no device of the plan is bound to.',
});
