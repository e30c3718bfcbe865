import { messages } from '../../message';

export const RUNS_WORDS = messages({
  proven: '{proven} proven',
  otherwise: '{contradicted} otherwise',
  silent: '{silent} silent',
  notAsked: '{left} not asked',
  eachRunOfAProofIs:
    'Each run of a proof is kept here with all that it found, to be compared with a later one.',
  noRunYet: 'No run yet',
  stranger: ' · {strangers, plural, one {# stranger} other {# strangers}}',
  planRevision: 'plan revision {revision}',
  goesOn: 'goes on',
  runOf: 'run of {startedAt}, {scope}',
  runOf2: 'Run of {startedAt}',
  run: 'Run',
  whatIsDifferentSince: 'What is different since',
  everyDevice: 'Every device · {results}',
  itGoesOn: 'It goes on.',
  itWent: 'It went {how}.',
  everythingWasFoundAsItWas: '✓ Everything was found as it was then.',
  strangerWasNotThereThen: 'Stranger {mac}: was not there then',
  strangerIsNoLongerThere: 'Stranger {mac}: is no longer there',
  asPlanned: 'as planned',
  notAsked2: 'not asked',
});
