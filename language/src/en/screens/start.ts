import { messages } from '../../message';

export const START_WORDS = messages({
  jobs: 'Jobs',
  noJobYetNameTheFirst: 'No job yet. Name the first one below.',
  subnetDeviceSnag:
    '{subnets, plural, one {# subnet} other {# subnets}}, {devices, plural, one {# device} other {# devices}} · {plan, plural, one {# snag} other {# snags}}, ',
  toAssignToProve: '{assign} to assign, {prove} to prove',
  whatIsLeftIsBeingCounted: 'what is left is being counted',
  listeningNow: 'Listening now',
  theWireOf: 'The wire of {jobId}',
  fallSilentOnEveryWire: 'Fall silent on every wire',
  aNewJobTheSiteOr: 'A new job: the site or machine',
  beginThisJob: 'Begin this job',
  beginWithAPlanFile: 'Begin with a plan file …',
  takeInAnotherLaptops: 'Take in a job of another laptop …',
  asThisDeviceHasIt: 'As this device has it',
  dayReadableInTheSun: 'Day: readable in the sun',
  nightForADarkCabinet: 'Night: for a dark cabinet',
  yourNameWrittenBesideEverythingYou: 'Your name, written beside everything you decide',
  light: 'Light',
  thisIsADemo:
    'A demo: whoever has its address and its key is in and may do everything. Nothing here is a real plant.',
  people: 'People …',
  showArchived: 'Show {count, plural, one {# archived job} other {# archived jobs}}',
  hideArchived: 'Hide the archived jobs',
  archived: 'Archived jobs',
});
