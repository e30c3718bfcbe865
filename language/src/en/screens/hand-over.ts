import { messages } from '../../message';

export const HAND_OVER_WORDS = messages({
  changeSinceTheListsWereLast:
    '{handOver, plural, one {# change} other {# changes}} since the lists were last handed over.',
  nothingChangedSinceTheListsWere: 'Nothing changed since the lists were last handed over.',
  addressList: 'Address list',
  oneLineForEachOfDevice:
    'One line for each of {interfaces, plural, one {# device} other {# devices}}: names, place, kind, address, mask, gateway, MAC, way, and how far it is seen to be. CSV, for any spreadsheet.',
  revisionOf: 'Revision {revision} · {proven} of {interfaces} proven',
  dhcpReservations: 'DHCP reservations',
  forWhoeverAnswersDhcpInThe:
    'For whoever answers DHCP in the plant: by MAC, by name and by switch port, as the configuration of dnsmasq.',
  downloadTheReservations: 'Download the reservations',
  everythingThatWasPlannedInAn:
    'Everything that was planned, in an open format: to keep, to compare, to begin another job with.',
  downloadThePlan: 'Download the plan',
  downloadItWithoutItsPapers: 'Download it without its papers',
  downloadTheAddressList: 'Download the address list',
  capturesOfWhatWasSaidOn:
    'Captures of what was said on the wire come here once somebody listened.',
  whatWasSaidOnTheWire: 'What was said on the wire',
  capture: 'Capture, {startedAt}',
  stillListening: 'still listening',
  until: 'until {endedAt}',
  pcap: '{source} · {person} · {endedAt} · pcap',
  captureOf: 'capture of {startedAt}',
});
