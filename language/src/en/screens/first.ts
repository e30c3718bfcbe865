import { messages } from '../../message';

export const FIRST_WORDS = messages({
  firstSteps: 'First steps',
  step: 'step {step} of 3',
  whatItIs:
    'Ipsonomo plans the addresses and names of every networked device of a machine, gives them on site, and proves that each is the one that is meant.',
  yourName: 'Your name, written beside everything you decide',
  next: 'Next',
  before: 'Back',
  leave: 'Leave it; it is found again under Help',
  yourFirstJob: 'Your first job',
  aJobIs: 'A job is one site or machine: its plan, what was seen of it, and what is handed over.',
  whatItIsCalled: 'What the job is called',
  forInstance: 'Bottling line 3',
  whereWillYouListen: 'Where it will listen',
  rehearse: 'I am at my desk: I rehearse the plan first',
  rehearseMore: 'a site is made of the plan; the wire is chosen later',
  adapterMore: 'this computer’s adapter {name}; nothing is sent before you say so',
  theFirstSubnet: 'The first subnet',
  aSubnetIs:
    'A subnet is a network in which devices reach each other without a router: often one machine. Others can be added at any time.',
  itsName: 'Its name',
  itsNetwork: 'Its network',
  begin: 'Begin the job',
  goOnWith: 'Go on with the first steps',
});
