import { messages } from '../../message';

export const WIRE_WORDS = messages({
  theGatewayOf: 'the gateway of {name}',
  whoIsThere: 'Who is there',
  deviceSeenAtItsPlannedAddress:
    '{asPlanned, plural, one {# device} other {# devices}} seen at {asPlanned, plural, one {its} other {their}} planned address, {elsewhere} elsewhere, {strangers, plural, one {# stranger} other {# strangers}}.',
  isAt: '× is at',
  planned: 'planned',
  goTo: 'go to {title}',
  askForEveryAddress: 'Ask for every address',
  andMore: 'and {addresses} more',
  itAnswersForManyAddressesA:
    '! It answers for many addresses: a router that answers for others (proxy ARP)',
  hasThePlannedAddressOf: 'has the planned address of {mayBe}',
  yourSocket: 'Your socket',
  theCableIsInNoSocket: 'The cable is in no socket that works: look at the lamps at both its ends.',
  noLink: 'No link',
  vlan: 'VLAN {tag}',
  vlan2: 'VLAN {tag} ({name})',
  more: '{more} more',
  aSwitchThatSaysWhereOne:
    'A switch that says where one is does so every 30 s. If it stays so quiet, the socket may be switched off, or in a network of its own.',
  nothingAtAllWasHeardYet: 'Nothing at all was heard yet',
  of: '{neighbour} of {system}',
  noVlanTold: 'no VLAN told',
  vlan3: 'VLAN {vlan}',
  told: 'told {at}',
  portOfASwitch: 'Port {port} of a switch',
  byItsSpanningTree: '{mac}, by its spanning tree',
  theSwitchDoesNotSayWhich: 'The switch does not say which one it is.',
  thePortIsOneForSwitches:
    'The port is one for switches, or it mirrors another. Field devices want a port that carries their own network without a tag; Ipsonomo hears and answers that network alone.',
  framesOfComeInWithA: 'Frames of {tags} come in with a tag',
  inThePlanThisVlanIs: 'In the plan this VLAN is {name}, {network}.',
  deviceWithAddressesOfHeard:
    '{count, plural, one {# device} other {# devices}} with addresses of {name} heard.',
  deviceWithAddressesOfNoPlanned:
    '{outside, plural, one {# device} other {# devices}} with addresses of no planned subnet.',
  byItsVlanThisIsBy:
    'By its VLAN this is {name}, by the addresses it is {name2}. Is the cable in the right socket, and the port in the right VLAN?',
  thatDoesNotGoTogether: 'That does not go together',
  theWire: 'The wire',
  whereIpsonomoListensAndSpeaks: 'Where Ipsonomo listens and speaks',
  theSimulatedHatcheryThatShipsWith: 'the simulated hatchery that ships with Ipsonomo',
  itHasWhatIsMeantFor:
    'It has {address}. What is meant for the machine may go there instead: switch {adapter} off while you are here, or give the machine another subnet.',
  isInTheSameSubnetAs: '{adapter} is in the same subnet as {subnet}',
  goToTheCabinetsOfThe: 'Go to the cabinets of the practice site',
  endListening: 'End listening',
  endThatRunAndTakeThe: 'End that run and take the wire',
  noLink2: 'no link',
  theWireOf: 'the wire of {name}',
  framesHeard: 'frames heard',
  requestsForAnAddress: 'requests for an address',
  framesSent: 'frames sent',
  framesThatCouldNotBeRead: 'frames that could not be read',
  strangersForgottenAgain: 'strangers forgotten again',
  inThisRun: 'In this run',
});
