import { messages } from '../../message';

export const CAUSES_WORDS = messages({
  whoHasItsAddress: 'Who has its address',
  doneAskItAgain: 'Done: ask it again',
  doneLookWhoIsThere: 'Done: look who is there',
  doneSearchOverLayer2: 'Done: search over layer 2',
  watchItAgain: 'Watch it again',
  switchItOffAndOnCold: 'Switch it off and on: cold start',
  seeItsRoutes: 'See its routes',
  whatDoesTheCodeMean: 'What does the code mean?',
  whatIsSeenNowIsTold: 'What is seen now is told here.',
  looking: 'Looking …',
  causesAreToldFromWhatWas:
    'Causes are told from what was seen. A run, a sweep or a look at the device gives more.',
  noCauseFits: 'No cause fits',
  likelyCausesTheLikeliestFirst: 'Likely causes, the likeliest first',
  aboutMin: 'about {minutes} min',
  doesNotExplain: 'does not explain: {value}',
  explainsAllThatWasSeen: 'explains all that was seen',
  likelyCauses: 'Likely causes',
  whyMayItNotBeAs: 'Why may it not be as planned?',
  whatWasSeenSince: 'What was seen since {since}',
  nothingThatWantsAnExplanationAsk:
    'Nothing that wants an explanation. Ask it first, or say what you see at the device.',
  allThatWasSeenBeforeToo: 'All that was seen before, too',
  whatDoYouSeeAtThe: 'What do you see at the device?',
});
