import { messages } from '../../message';

export const KNOWN_WORDS = messages({
  whatOthersKnow: 'What others know already',
  leasesReservationsAndTools:
    'Leases and reservations of dnsmasq, ISC dhcpd and Kea, and what arp -a, ip neigh, ipconfig /all and fping print: each line is held against the plan.',
  chooseAFile: 'Choose a file',
  orPasteItHere: 'Or paste it here',
  readAs:
    '{count, plural, one {One line} other {# lines}} read as {kind, select, kea {reservations of Kea} dhcpd {reservations of ISC dhcpd} dnsmasq {reservations of dnsmasq} neighbours {a list of neighbours} alive {a list of who answered} other {{kind}}}.',
  anotherDeviceHasTheAddress: 'Another device has the planned address',
  thePlannedDeviceHasAnotherAddress: 'The planned device has another address',
  nobodyPlannedIt: 'Nobody planned it',
  itsMacIsKnownNow: 'At the planned address, no MAC bound yet',
  knownByItsName: 'Known by its name, no MAC bound yet',
  asPlanned: 'As planned',
  takeMacs: 'Take {count, plural, one {# MAC} other {# MACs}} into the plan',
  takenFromElsewhere: 'took {count, plural, one {# MAC} other {# MACs}} from what others know',
  withoutAName: 'without a name',
  lineOfIt: 'line {line}: {said}',
  planned: '(planned: {address}, {mac})',
  noMacYet: 'no MAC yet',
});
