import { messages } from '../../message';

export const CONTROLLER_WORDS = messages({
  columnsNotRead:
    '{count, plural, one {One column is} other {# columns are}} not read, and not taken',
  foundByItsAddressTheName: 'found by its address: the name is another',
  itsNameIsNearlyThePlanned: 'its name is nearly the planned one',
  asEnteredInTheController: 'as entered in the controller: {known}',
  pasteTheTableHereOrType: 'Paste the table here, or type it',
  takeLine: 'Take {known, plural, one {# line} other {# lines}}',
  whichSheet: 'Which sheet',
  lineMoreAreLeftOut: '! {left, plural, one {# line} other {# lines}} more are left out',
  from0: 'from 0',
  from1: 'from 1',
  withAnAreaDigit40001: 'with an area digit (40001)',
  readOneRegister: 'Read one register',
  of: 'Of',
  unit: 'Unit',
  theDeviceItself: 'the device itself',
  register: 'Register',
  counted: 'Counted',
  readIt: 'Read it',
  plannedEnteredFound: '{title}: planned, entered, found',
  eachValueAsPlannedAsEntered:
    'Each value as planned, as entered in the controller and as found, side by side.',
  copyTheListOfDevicesIn:
    'Copy the list of devices in the controller’s project as a table, choose a file of it, or type it: name, address, revision, size in, size out, interval.',
  nothingWasEnteredYet: 'Nothing was entered yet',
  differs: 'Differs',
  theSame: 'The same',
  pasteFromTheController: 'Paste from the controller',
  whatStandsInThePlanCounts:
    'What stands in the plan counts. If another side has it right, take its value into the plan:',
  asTheProjectHasIt: 'As the project has it: {value} {is}',
  asTheDeviceHasIt: 'As the device has it: {value} {is}',
  theDeviceHasToTake:
    'The device has to take {takes, plural, one {# value} other {# values}}: to its call',
  theDeviceHasToTakeOn:
    '{title} has to take {takes, plural, one {# value} other {# values}}: to its call',
  headsOfCorrections: 'controller, device, value, stands there, has to become',
  toCorrectInTheProject:
    'To correct in the project: {lines, plural, one {# value} other {# values}}',
  thePlanSaysOtherwise:
    'What the controller’s project says otherwise than the plan. It is gone from here once the corrected project is pasted again.',
  correctInto: '{value}: {stands} → {becomes}',
  copyTheListForTheProgrammer: 'Copy the list for the programmer',
  changeItInThePlan: 'Change it in the plan',
  changeItInThePlan2: 'Change it in the plan: {title}',
});
