import { messages } from '../../message';

export const IMPORT_WORDS = messages({
  bringTheDevicesUpToDate: 'The list came again: bring the devices up to date with it',
  whoseALineIs:
    'Whose a line is tells its MAC, else its names, else its address. What a line does not say stays as it is.',
  takeOutWhatNoLineIsOf: 'Take out the devices that no line is of',
  bringThemUpToDate: 'Bring the plan up to date',
  newChangedSameGone:
    '{added} new, {changed} changed, {same} as they are, {gone} gone from the list',
  changesOfLine: 'line {line}: {title}',
  noLineIsOf: 'No line is of: {titles}{more, plural, =0 {} other { and # more}}',
  lineOfThemGood: '{count, plural, one {# line} other {# lines}}, {count2} of them good',
  theyWouldBringWrongSnagInto:
    'They would bring {wrong, plural, one {# wrong snag} other {# wrong snags}} into the plan.',
  line: 'line {row}, {title}{text}',
  kindsNobodyKnows: '{count, plural, one {A kind} other {# kinds}} that nobody knows yet',
  kindsNobodyKnowsMore:
    'A kind that is made here takes any way of getting an address; say more of it under Kinds when you know it.',
  wordsInLines: '{words}, in {lines, plural, one {# line} other {# lines}}',
  notSaidYet: 'not said yet',
  makeThisKind: 'Make the kind “{words}”',
  andMoreKinds: 'and {count, plural, one {# more} other {# more}}, once these are said',
  leaveItOut: 'leave it out',
  sheet: 'Sheet',
  lines: '{name}, {count} lines',
  forLinesThatDoNotSay: 'For lines that do not say',
  whereTheAddressSays: 'where the address says',
  chooseAnotherFile: 'Choose another file',
  noLineCanBeTakenYet: 'No line can be taken yet',
  addDevice: 'Add {good, plural, one {# device} other {# devices}}',
  addTheOtherDevice: 'Add the other {good, plural, one {# device} other {# devices}}',
  column: 'column {at}',
  fileToBeReadBeforeIt: '{before, plural, one {# file} other {# files}} to be read before it …',
  beingRead: 'Being read …',
  xlsxOrCsvOneDeviceA:
    'XLSX or CSV, one device a line, with headings above. Nothing is changed before you have seen what comes of it.',
  nothingWasTakenFromIt: 'Nothing was taken from it.',
});
