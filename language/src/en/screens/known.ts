import { messages } from '../../message';

export const KNOWN_WORDS = messages({
  whatOthersKnow: 'What is there already',
  leasesReservationsAndTools:
    'A capture (pcap, pcapng), leases and reservations of dnsmasq, ISC dhcpd and Kea, or what arp -a, ip neigh, ipconfig /all and fping print: each is held against the plan. What nobody planned can be taken into it, marked as found.',
  chooseAFile: 'Choose a file',
  orPasteItHere: 'Or paste it here',
  capturesOfThisJob: 'What was heard in this job',
  heardFrom: 'Capture of {startedAt}',
  readsCapture: 'Reads {name}: {megabytes} MB',
  readAsCapture:
    '{name}: {count, plural, one {one station} other {# stations}} in {frames, plural, one {one frame} other {# frames}}{unread, plural, =0 {} other {, # of them cannot be read}}.',
  otherThanCapture: 'Read something else',
  inFrames: '{frames, plural, one {one frame} other {# frames}}: {said}',
  takeStrangers:
    'Take {devices, plural, one {# device} other {# devices}}{subnets, plural, =0 {} one { and # subnet} other { and # subnets}} into the plan, as found',
  tookStrangers:
    'took {devices, plural, one {# device} other {# devices}} and {subnets, plural, one {# subnet} other {# subnets}} as found in {source}',
  leftWithoutAddress:
    '{count, plural, =0 {Those without an address get the next free ones there.} one {One has no address and is not taken yet: {subnets, plural, =0 {there is no subnet for it} other {choose where it belongs}}.} other {# have no address and are not taken yet: {subnets, plural, =0 {there is no subnet for them} other {choose where they belong}}.}}',
  whereTheyBelong: 'Where those without an address belong',
  tookAndLeft:
    '{devices, plural, =0 {No device} one {One device} other {# devices}} and {subnets, plural, one {one subnet} other {# subnets}} are in the plan now, marked as found until you say that they are meant so.{left, plural, =0 {} one { One has no address and was left.} other { # have no address and were left.}}',
  planTheFoundAddress: 'The plan was wrong: take {address}',
  theDeviceIsWrong: 'The device is wrong: put it right',
  tookAddress: '{title}: the plan was wrong, it has {address}',
  cutFile: 'The file ends in the middle of a frame; what stands before it was read.',
  readAs:
    '{count, plural, one {One line} other {# lines}} read as {kind, select, kea {reservations of Kea} dhcpd {reservations of ISC dhcpd} dnsmasq {reservations of dnsmasq} neighbours {a list of neighbours} alive {a list of who answered} other {{kind}}}.',
  anotherDeviceHasTheAddress: 'Another device has the planned address',
  thePlannedDeviceHasAnotherAddress: 'The planned device has another address',
  servesASubnet: 'Gateways and DHCP servers of subnets',
  asksByAs: 'asks by {protocol} as “{vendorClass}”',
  asksBy: 'asks by {protocol}',
  nobodyPlannedIt: 'Nobody planned it',
  itsMacIsKnownNow: 'At the planned address, no MAC bound yet',
  knownByItsName: 'Known by its name, no MAC bound yet',
  asPlanned: 'As planned',
  takeMacs: 'Take {count, plural, one {# MAC} other {# MACs}} into the plan',
  takenFromElsewhere: 'took {count, plural, one {# MAC} other {# MACs}} from what others know',
  sourceOfText:
    '{kind, select, kea {reservations of Kea} dhcpd {reservations of ISC dhcpd} dnsmasq {reservations of dnsmasq} neighbours {a list of neighbours} alive {a list of who answered} other {{kind}}}',
  withoutAnAddress: 'no address',
  lineOfIt: 'line {line}: {said}',
  planned: '(planned: {address}, {mac})',
  noMacYet: 'no MAC yet',
});
