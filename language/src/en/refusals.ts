import type { Issue, IssueCode, IssueFacts } from '@ipsonomo/core/net';
import type { Facts } from '@ipsonomo/core/plan';
import { messages } from '../message';
import { bodyWords, misfitWords } from './bodies';
import { stationRefusal } from './evidence';

/** What each role and right lets somebody do. */
const RIGHT_WORDS: Readonly<Record<string, string>> = {
  look: 'look',
  plan: 'plan',
  assign: 'plan and assign',
  send: 'assign and send',
  keep: 'keep the installation',
};

const COUNTED = messages({
  parts:
    '"{where}" has {have, plural, one {# part} other {# parts}}; an address has four, with dots between.',
});

/**
 * Every refusal in one short sentence: what is wrong, where, and what to do. The table is the
 * catalogue of codes; a test holds it against the codes in use.
 */
const SENTENCES: {
  readonly [C in IssueCode]: (where: string, facts: IssueFacts[C]) => string;
} = {
  'ipv4.empty': () => 'There is no address. Write four numbers with dots, like 172.22.40.86.',
  'ipv4.space': (where) => `"${where}" has a space in it. Take the space out.`,
  'ipv4.parts': (where, { have }) => COUNTED.parts({ where, have: Number(have) }),
  'ipv4.digits': (where, { part, text }) =>
    where === ''
      ? `Part ${part} of "${text}" is empty. Write a number from 0 to 255.`
      : `"${where}" in "${text}" is not a number. Write 0 to 255.`,
  'ipv4.leadingZero': (where, { text }) =>
    `"${where}" in "${text}" begins with a zero. Some devices read that as another number: write it without.`,
  'ipv4.octet': (where, { part }) => `${where} is above 255, the most part ${part} can be.`,
  'prefix.slash': (where) =>
    `"${where}" has no mask. Write it like 172.22.40.0/24, or 172.22.40.0 255.255.255.0.`,
  'prefix.digits': (where) => `"/${where}" is not a prefix length. Write a number from 0 to 32.`,
  'prefix.leadingZero': (where) => `"/${where}" begins with a zero. Write it without.`,
  'prefix.range': (where) => `/${where} is above 32, the longest prefix.`,
  'prefix.hostBits': (where, { network }) =>
    `${where} is an address inside a network, not the network. Its network is ${network}.`,
  'mask.gap': (where) => `${where} is no mask: its ones are not in one piece.`,
  'range.order': (_where, { first, last }) => `${first} comes after ${last}. Swap the two.`,
  'mac.length': (where, { have }) =>
    where === ''
      ? 'There is no MAC. Type the twelve digits of the label.'
      : `"${where}" has ${have} of twelve digits.`,
  'mac.notation': (where) => `"${where}" is not a MAC. It has twelve digits, 0–9 and A–F.`,
  'mac.group': (where) => `${where} is a group address. No device has it as its own.`,
  'hex.empty': () => 'There are no bytes. Write them as hex digits, two for each byte.',
  'hex.letter': (where) => `"${where}" is no hex digit. Bytes are written with 0–9 and A–F.`,
  'hex.odd': (_where, { have }) =>
    `${have} hex digits make no whole bytes: one is missing or extra.`,
  'file.missing': (where) => `There is no file ${where}, or it may not be read.`,
  'pcap.magic': (where) => `${where} is no capture, neither pcap nor pcapng.`,
  'pcap.link': (where) => `${where} was not captured on Ethernet.`,
  'pcap.broken': (where, { at }) =>
    `${where} cannot be read on at byte ${at}: what stands there is no frame of a capture.`,
  'pcap.cut': (where, { at }) => `${where} ends in the middle of a frame, at byte ${at}.`,
  'bytes.unreadable': (where, { at, need, have }) =>
    `${where} cannot be read at byte ${at}: needed ${need}, found ${have}.`,
  'name.empty': () => 'There is no name.',
  'name.space': (where) => `"${where}" has a space in it. Use a hyphen.`,
  'name.length': (_where, { have }) => `The name has ${have} characters; 253 is the most.`,
  'name.label': (where, { have }) =>
    `A part of "${where}" has ${have} characters; 1 to 63 are allowed between dots.`,
  'name.letter': (where) =>
    `"${where}" is not allowed in a host name. Use letters, digits, hyphens.`,
  'name.hyphen': (where) => `"${where}" begins or ends with a hyphen. Take it off.`,
  'name.numeric': (where) => `"${where}" reads like an address. Add a letter.`,
  'name.taken': (where, { holder }) => `${where} is the name of ${holder} already.`,
  'station.empty': () => 'There is no station name.',
  'station.length': (_where, { have }) =>
    `It has ${have ?? 'too many'} characters; 240 is the most.`,
  'station.label': () => 'A part between dots has 1 to 63 characters.',
  'station.letter': (where) => `"${where}" is not allowed. Use small letters, digits, hyphens.`,
  'station.capital': (where) =>
    `"${where}" is a capital. The wire compares letter by letter: use small ones.`,
  'station.hyphen': (where) => `"${where}" begins or ends with a hyphen. Take it off.`,
  'station.doubleHyphen': (where) => `"${where}" has two hyphens in a row. Use one.`,
  'station.numeric': (where) => `"${where}" reads like an address. Add a letter.`,
  'station.port': (where) => `"${where}" is kept for the ports of a station. Use another word.`,
  'dhcpName.empty': () => 'There is no DHCP name.',
  'dhcpName.length': (_where, { have }) => `It has ${have ?? 'too many'} bytes; 255 is the most.`,
  'variable.empty': () => 'There is no variable name.',
  'variable.letter': (where) => `"${where}" is not allowed. Use letters, digits, underscores.`,
  'variable.digit': (where) => `"${where}" begins with a digit. Begin with a letter.`,
  'variable.underscore': (where) => `"${where}" has underscores in a row or at its end.`,
  'variable.length': (_where, { have, most }) =>
    have ? `It has ${have} characters; ${most} is the most.` : 'It is too long for its controller.',
  'known.nothing': () =>
    'There is neither an address nor a MAC in it that can be read. Paste what arp, ip neigh, ipconfig /all or fping print, or a file of leases or reservations.',
  'card.name': (where) =>
    `"${where}" is no name of a file. Correct the kind: no slashes and no other signs of paths.`,
  'card.unknown': (where, { device }) =>
    `The card of ${device} needs its ${where}, which is not known yet.`,
  'card.word': (where, { words }) =>
    `The word {${where}} stands for nothing on a card. Correct the kind; use: ${words}.`,
  'pattern.empty': () => 'There is no pattern. Write one like {cabinet}-{stem}-{n}.',
  'pattern.brace': (where) => `"${where}" is no word in braces. Write {n} or a word of the list.`,
  'pattern.word': (where, { words }) =>
    `The word {${where}} stands for nothing here. Use: n, ${words}.`,
  'switches.count': (where, { have, need }) =>
    `"${where}" has ${have} positions; this device has ${need}.`,
  'switches.position': (where, { place, label, most }) =>
    `Position ${place} (${label}) cannot be ${where}: 0 to ${most}.`,
  'switches.base': (where, { base }) => `${where} is outside ${base}, where these switches work.`,
  'switches.never': (where) => `No position of these switches means ${where}.`,
  'switches.none': (where) => `${where} has no switches.`,
  'split.outside': (where, { name, block }) => `${name} is fixed at ${where}, outside ${block}.`,
  'split.overlap': (where, { name, other }) => `${name} is fixed at ${where}, which ${other} has.`,
  'split.small': (where, { name, hosts }) =>
    `${name} is fixed at ${where}, too small for its ${hosts} addresses.`,
  'file.value': (where, misfit) => `${where}: ${misfitWords(misfit)}.`,
  'file.json': (where, { why }) => `${where} is no JSON: ${why}.`,
  'file.format': (where) => `${where} is no plan of Ipsonomo: "format" is missing or another.`,
  'file.version': (where, { have, most }) =>
    `${where} is a plan of version ${have}; this program knows ${most}. Use a newer one.`,
  'file.empty': (where) => `${where} is empty.`,
  'file.noText': (where) => `${where} is no text. EDS and GSDML files can be read.`,
  'file.noDevice': (where) => `${where} describes no device.`,
  'file.noIdentity': (where) =>
    `${where} does not say which maker and which device it is about, or not in numbers.`,
  'file.xml': (where, { why }) => `${where} is no XML: ${why}.`,
  'file.deep': (where, { most }) =>
    `${where}: its elements stand in one another more than ${most} deep. No description does.`,
  'file.crowded': (where) => `${where} has more than 500,000 elements. No description does.`,
  'file.fell': (where, { why }) =>
    `${where} could not be read: it asks for too much memory or time (${why}).`,
  'package.fell': (_where, { why }) => `The files were not written: ${why}. Try again.`,
  'package.nothing': () =>
    'There is nothing to write: no device of the plan is in what was chosen.',
  'package.wrong': (_where, { count }) =>
    `${count === 1 ? 'One thing is' : `${count} things are`} wrong in the plan. Put it right, or say that it leaves all the same.`,
  'paper.empty': (where) => `${where} is empty.`,
  'paper.large': (where, { most }) => `${where} is larger than ${most} MB.`,
  'paper.full': (where, { most }) =>
    `With ${where} the papers of this job would be more than ${most} MB. Remove some first.`,
  'paper.missing': () =>
    'This paper is named in the plan, but what it holds did not come with it. Attach it again.',
  'paper.changed': (where) =>
    `Under papers, ${where} holds something else than the plan means: its SHA-256 is another.`,
  'file.twice': (where, { id }) => `${where}: the id "${id}" stands twice.`,
  'person.needed': () => 'Nothing was done: say your name first.',
  'rehearse.asked': (where) =>
    `“${where}” is not understood: --people takes 1 to 4, --faults a whole number.`,
  'switches.label': (where) =>
    `Switch ${where} has no name: write what stands beside it on the device.`,
  'switches.weight': (where) =>
    `Say what ${where === '' ? 'it' : where} is worth: a dial for the tens is worth 10 at each step.`,
  'switches.number': (where, { least, most }) =>
    `“${where}” is no whole number from ${least} to ${most}.`,
  'switches.order': (where) => `The values ${where} are the wrong way round.`,
  'switches.pattern': (where) =>
    `“${where}” has no place for the number: write {n}, or {nnn} for three digits.`,
  'switches.noMeaning': () => 'Say what at least one value of the switches means.',
  'kind.noWay': () => 'Choose at least one way in which it gets its address.',
  'kind.noSwitches': () => 'It is set by switches: draw at least one.',
  'cell.empty': (where) => `The ${where} may not be empty.`,
  'cell.needed': (where) => `No ${where} is named here, and none was chosen for the whole list.`,
  'cell.long': (_where, { have, most }) => `This has ${have} characters; ${most} is the most.`,
  'cell.kind': (where) => `No kind is called “${where}”.`,
  'cell.subnet': (where) => `No subnet is called “${where}” or has that network.`,
  'cell.way': (where) => `“${where}” is no way to get an address.`,
  'cell.device': (where) => `No device is called “${where}”.`,
  'cell.noInterface': (where) => `${where} has no interface.`,
  'cell.vlanNumber': (where) => `“${where}” is no VLAN: it is a number from 1 to 4094.`,
  'cell.vlan': (where, { subnet, planned }) =>
    planned === ''
      ? `The line says VLAN ${where}, but ${subnet} is in none.`
      : `The line says VLAN ${where}, but ${subnet} is in VLAN ${planned}.`,
  'cell.maker': (where, { kind, maker }) =>
    `The line says ${where}, but ${kind} is made by ${maker}.`,
  'cell.orderNumber': (where, { kind, orderNumber }) =>
    `The line says ${where}, but the order number of ${kind} is ${orderNumber}.`,
  'copy.nothing': () => 'Choose the devices to copy, and how often.',
  'copy.offset': (where, { subnet, size }) =>
    subnet
      ? `${subnet} cannot move by ${where} addresses: only by multiples of its size, ${size}.`
      : `An offset of ${where} would put every copy on top of the first.`,
  'copy.range': (where) => `By ${where} addresses each, the last copy is beyond the last address.`,
  'subnet.vlan': (where) => `A VLAN is a number from 1 to 4094, not “${where}”.`,
  'need.number': (where) => `${where}: devices, growth and held addresses are whole numbers.`,
  'split.full': (where, { block, wanted, largest }) =>
    largest === undefined
      ? `${where} needs a /${wanted}; nothing of ${block} is left.`
      : `${where} needs a /${wanted}; the largest part of ${block} that is left is a /${largest}.`,
  'kind.unknown': (where, { known }) =>
    `There is no kind "${where}" on the shelf.${known === undefined ? '' : ` With switches there are: ${known}.`}`,
  'edit.conflict': (_where, { count }) =>
    `Somebody changed the same a moment ago (${count}). Nothing was changed: look at both and choose.`,
  'undo.none': () => 'There is nothing of yours to take back.',
  'redo.none': () => 'There is nothing to do again.',
  'address.held': (where, { note }) => `${where} is held by others: ${note}.`,
  'address.never': (where, { block }) =>
    `${where} lies in the block “${block}”: no device can have it.`,
  'address.outside': (where, { subnet, network }) =>
    `${where} is outside ${subnet}, which is ${network}.`,
  'address.network': (where, { network }) =>
    `${where} names the network ${network} itself. Give a device another.`,
  'address.broadcast': (where, { network }) =>
    `${where} is the broadcast address of ${network}. Give a device another.`,
  'address.gateway': (where, { subnet }) => `${where} is the gateway of ${subnet}.`,
  'address.taken': (where, { holder }) => `${where} is given to ${holder}.`,
  'address.band': (where, { band }) =>
    `${where} is kept for: ${band}. Give another, or move the band.`,
  'address.full': (where) => `${where} has no free address left for this kind of device.`,
  'subnet.never': (where, { block }) =>
    `${where} lies in the block “${block}”: no device can be there.`,
  'subnet.tooWide': (where) => `${where} is wider than any site. Write a longer prefix, like /24.`,
  'subnet.overlap': (where, { other, network }) =>
    `${where} overlaps ${other}, which is ${network}. Choose a range beside it.`,
  'gateway.outside': (where, { network }) =>
    `The gateway ${where} is outside ${network}. It must be in the subnet it serves.`,
  'gateway.network': (where, { network }) => `${where} names ${network} itself; it is no gateway.`,
  'gateway.broadcast': (where, { network }) => `${where} is the broadcast address of ${network}.`,
  'mac.taken': (where, { holder }) =>
    `${where} is bound to ${holder}. Unbind it there first, or look at the label again.`,
  'label.differs': (where, { heard }) =>
    `The label says ${where}, the wire says ${heard}. Nothing was bound.`,
  'body.invalid': (where, facts) => `${where}: ${bodyWords(facts)}.`,
  'body.tooLarge': () => 'That is more than can be sent at once (1 MB). Send it in parts.',
  'door.locked': () =>
    'This browser was not let in, or its key was taken back. Open the address with a key, or type the key here.',
  'door.wrongKey': () =>
    'This key opens nothing: it is mistyped, a day old, or was taken back. Ask for a new one.',
  'door.tooMany': (_where, { most }) =>
    `There are ${most} already. Take those back that nobody uses any more.`,
  'door.busy': () =>
    'The server has more to do than it can just now. It goes on by itself; try again in a few seconds.',
  'door.full': () =>
    'More pages are open than this server serves at once. Close some; it goes on by itself.',
  'door.slow': (_where, { seconds }) =>
    `Too much was asked at once. It goes on in ${seconds} s by itself.`,
  'people.nameTaken': (_where, { name }) =>
    `Somebody else here is called ${name} already. Add what tells you apart: the company, a letter.`,
  'people.lastKeeper': () =>
    'Somebody has to see to people and wires, and nobody else may. Let another one keep first.',
  'people.wrong': () =>
    'Name and password do not belong together. Look at both; whoever keeps this installation can make you a key.',
  'people.wrongOld': () => 'The password until now is another one. Nothing was changed.',
  'people.password': (_where, { least, most }) =>
    `A password has ${least} to ${most} characters. A few words in a row are easily remembered.`,
  'people.plainPassword': () =>
    'This password is guessed at once: it is your name, or a few characters again and again. Take a few words in a row.',
  'right.missing': (_where, { need, have }) =>
    `For this one has to be allowed to ${RIGHT_WORDS[String(need)] ?? need}; you may ${RIGHT_WORDS[String(have)] ?? have}. Whoever keeps this installation can change that.`,
  'right.send': (_where, { wire }) =>
    `Nobody has let you send on ${wire}, or that has ended. Whoever keeps this installation can let you, under Jobs → People.`,
  'thing.unknown': (where) => `There is no ${where} here any more. Go back and look again.`,
  'page.noPort': (_where, { port, last }) =>
    `Ports ${port} to ${last}, for pages of devices, are all in use on the server. Start it with another PAGE_PORT.`,
  'wire.otherName': (_where, { host }) =>
    `This page was opened under the name ${host}, which is not this machine's. Open it by its address.`,
  'field.hastened': () =>
    'This server was started with a hastened practice site and opens no adapter. Start it without IPSONOMO_PACE.',
  'field.noWire': () => 'No wire is chosen. Choose the practice site or an adapter first.',
  'field.notListening': () => 'Nobody is listening on the wire. Start listening first.',
  'field.noLink': () => 'There is no link on the wire. Look at cable and socket.',
  'field.unbound': (_where, { title }) => `${title} is not bound to a MAC yet.`,
  'field.busy': (_where, { title }) => `${title} is being talked to already.`,
  'field.stopped': (_where, { title }) =>
    `${title}: broken off in the middle, because somebody fell silent or the link went. Begin again.`,
  'field.unknownTarget': () =>
    'This device is not in the plan that the wire knows. Load the page again.',
  'field.noJournal': (_where, { why }) =>
    `What is heard could not be kept, so nothing was begun (${why}). Look at disk and rights.`,
  'field.fellOver': () =>
    'The thread of the wire met an error and was started anew. Choose the wire and begin again.',
  'wire.noAdapter': (_where, { adapter }) => `There is no adapter ${adapter} on this machine.`,
  'wire.noRight': (_where, { adapter }) =>
    `Ipsonomo may not open ${adapter}: it needs the right cap_net_raw. Start it as root or give node the right (README).`,
  'wire.failed': (_where, { adapter, errno }) =>
    `${adapter} could not be opened (system error ${errno}).`,
  'wire.inUse': (_where, { person, what }) =>
    `${person} is listening on the wire for ${what}. Whoever chooses another ends that run.`,
  'wire.tooMany': (_where, { count }) =>
    `${count} jobs listen on a wire at this moment, and this server holds no more. End listening in one of them first.`,
  'wire.ownWeb': (_where, { adapter }) =>
    `This page comes in through ${adapter}. The live adapter never carries the web page: use another.`,
  'station.silent': (_where, { mac }) =>
    `The station ${mac} did not answer, asked three times. Look whether it is still on, and on this wire.`,
  'station.refused': (_where, { mac, why }) => `${mac} refused: ${stationRefusal(String(why))}.`,
  'read.nothing': () =>
    'There is no address and no MAC in this. Type the address as the display shows it, or copy more of the page.',
  'device.otherKind': (_where, { title, planned, found, name }) =>
    `Nothing was told to ${title}: planned is ${planned}, but it says it is ${found} (${name}). Look whether it is the right box, and the right kind in the plan.`,
  'device.otherRevision': (_where, { title, planned, found }) =>
    `Nothing was told to ${title}: planned is revision ${planned}, but it says it has ${found}. Look whether it is the right box, and the right kind in the plan.`,
  'device.inUse': (_where, { title, controller }) =>
    `${title} is in use: its identity says that a controller owns it or exchanges data with it${
      controller ? ` (planned is ${controller})` : ' (the plan names none)'
    }. Stop that first; a machine may be running.`,
  'device.mayBeUsed': (_where, { title, sign, by, seconds }) =>
    `${title} may be in use: ${
      sign === 'asked'
        ? `its controller ${by} asked for its address ${seconds} s ago, as one does that talks with it`
        : `cyclic data went between it and ${by} ${seconds} s ago`
    }. Stop that first; a machine may be running.`,
  'page.none': (_where, { title }) => `${title} has no web page, by its kind.`,
  'page.nowhere': (_where, { title }) =>
    `Nobody knows where ${title} is: its kind has no factory address, and it was not seen yet.`,
  'page.noVoice': (_where, { at }) =>
    `Ipsonomo found no free address to speak from beside ${at}. Look what else is on the wire.`,
  'page.silent': (_where, { title, at }) =>
    `Nothing answers at ${at}, where ${title} should be. Look at its power, its cable and your socket.`,
  'page.several': (_where, { at, count, found }) =>
    `${count} devices answer at ${at} (${found}). Unplug all but one: whose page opens would be luck.`,
  'page.other': (_where, { title, at, found }) =>
    `At ${at} answers ${found}, which is not the MAC bound to ${title}. Its page was not opened.`,
  'proof.nothing': () => 'There is no device to prove here: choose another place.',
  'proof.nothingLeft': () => 'This run has asked for all of its devices. Begin a new one.',
  'vigil.tooMany': (_where, { count, most }) =>
    `${count} devices in such a beat are more than ${most} packets a second: choose fewer, or ask less often.`,
  'entered.empty': () =>
    'There is no line in it: paste the table with a line for each device, its name first.',
  'entered.unit': (where) =>
    `${where}: a unit is bytes, words or double words, or 8, 16 or 32 bits.`,
  'entered.number': (where) =>
    `${where}: that is no number. Sizes and intervals are whole numbers.`,
  'path.none': () =>
    'No route path leads there: the plan has no rack on the way whose slots are known.',
  'talk.silent': (_where, { title }) => `${title} does not answer at its address. Prove it first.`,
  'talk.other': (_where, { title, found }) =>
    `Another device answers where ${title} should be: ${found}. Nothing was said to it.`,
  'talk.closed': (_where, { title, port }) =>
    `${title} takes no conversation at port ${port}. Look whether the service is switched on.`,
  'register.area': (where) =>
    `${where} has no area digit of a register: 4 stands for holding registers, 3 for input registers, as in 40001.`,
  'register.range': (where) =>
    `${where} is no register: they go from 0 to 65535 as the wire counts them.`,
  'vigil.none': () => 'There is no vigil yet: begin one first.',
  'sweep.tooWide': (_where, { subnet, addresses, most, minutes }) =>
    `${subnet} has ${addresses} addresses: to ask for each would take ${minutes} minutes. Up to ${most} are asked for (a /22). Ask the planned devices instead, or plan the subnet narrower.`,
  'walk.unknownSubnet': () => 'The plan has no such subnet: choose one that is on the cable.',
  'route.unknown': (where) =>
    `The plan has no device ${where}: give its address, host name or title.`,
  'field.planGone': () => 'The wire has lost the plan of this job. Begin to listen again.',
  'pin.noObject': (_where, { title }) => `${title} has no way to be told over the wire.`,
  'store.away': () => 'The database does not answer. Nothing was changed; try again in a moment.',
  'store.busy': () =>
    'The database has more to do than it can at this moment. Nothing was changed; try again in a moment.',
  'server.busy': (_where, { count }) =>
    `${count} others wait for long computations already. Try again in a moment.`,
  'server.thinking': (_where, { why }) =>
    `A long computation fell over (${why}). It begins anew when it is asked for again.`,
  'reading.busy': (_where, { count }) =>
    `${count} files wait to be read already. Send this one again in a minute.`,
  'list.large': (where, { most }) =>
    `${where} has more than ${most} filled cells, which no list of devices has. Save the sheet that is meant alone.`,
  'list.empty': (where) => `${where} holds no list: a line of headings and lines below are needed.`,
  'list.binary': (where) => `${where} is no text. CSV and XLSX can be read.`,
  'list.old': (where) => `${where} is a workbook of before 2007. Save it as XLSX or CSV.`,
  'list.long': (where, { most }) => `${where} has more than ${most} lines.`,
  'list.wide': (where, { most }) => `${where} has more than ${most} columns.`,
  'list.csv': (where, { line, why }) =>
    `${where} cannot be read from line ${line} on (${why}). Perhaps a quote is missing there.`,
  'list.xlsx': (where, { why }) => `${where} is no whole workbook (${why}).`,
  'list.fell': (where) => `${where} could not be read: it asks for too much memory or time.`,
  'list.reading': () => 'The list is still being read.',
  'list.nothing': () => 'No line of the list can be taken as it stands.',
  'rehearsal.none': () => 'This job is no rehearsal. Begin one on its page of the wire.',
  'rehearsal.live': () =>
    'A rehearsal has its own site and takes no adapter. Open the job itself to work on a real wire.',
  'rehearsal.ended': () => 'This rehearsal has ended. Begin another.',
  'job.otherName': (where) => `Nothing was deleted: type the name of the job as it is, ${where}.`,
  'job.notArchived': (where) =>
    `${where} is still worked on: put it among the archived ones first.`,
  'job.notWritten': (where) =>
    `${where} was not written to a file as it is now: download everything of it first.`,
  'job.taken': (where) => `There is a job called ${where} already.`,
  'photo.unreadable': () => 'This is no picture that can be kept (JPEG or PNG).',
  'photo.large': (_where, { most }) => `A photo may have ${most} MB. Make it smaller.`,
  'photo.full': (_where, { most }) =>
    `The photos of this job have ${most} MB together, which is the most.`,
  'photo.missing': () => 'This photo is not kept here.',
  'note.empty': () => 'There is nothing to keep: write something, or take a photo.',
  'bundle.unreadable': (where, { why }) =>
    `${where} is nothing that another laptop wrote (${why}). Choose a file that ends in .bundle.gz.`,
  'bundle.cut': (where) =>
    `${where} ends in the middle: it was not copied whole. Nothing was taken; write it anew.`,
  'bundle.changed': (where) =>
    `${where} is not what the other laptop wrote: something in it was changed. Nothing was taken; write it anew there.`,
  'bundle.newer': (where, { have, most }) =>
    `${where} is of version ${have}, and this program reads up to ${most}. Bring this laptop up to date first.`,
  'bundle.large': (where, { most }) =>
    `${where} holds more than ${most} MB when it is unpacked. No job does.`,
  'bundle.otherJob': (_where, { name }) =>
    `This is of another job, ${name}. Take it in from the list of jobs, if that is meant.`,
  'bundle.chain': (_where, { place }) =>
    `The chain of evidence in it does not hold at place ${place}: somebody changed evidence there. Nothing was taken.`,
  'bundle.history': () =>
    'That laptop told another past of this job before: its database was put back, or changed. Nothing was taken; look there first.',
  'bundle.rehearsal': () => 'A rehearsal stays where it was begun: nothing of it counts elsewhere.',
  'store.conflict': () => 'Somebody changed this a moment ago. Load again and look.',
  'call.taken': (_where, { person }) =>
    `${person} is at this device. Take it over with a word to them, or leave it to them.`,
  'waiting.ofAnother': (_where, { person }) =>
    `${person} did this and had no network. Whoever is signed in now can send it in their own name, or give it up.`,
  'waiting.full': () =>
    'The server does not answer, and this browser has no room to keep it until it does: nothing was done. What you typed still stands here.',
  'server.awayForWire': () =>
    'Only the server sends on the wire, and it does not answer. What you see and do at the device can be noted here: it is kept and sent later.',
  'server.away': () =>
    'The server does not answer. Look whether it runs and whether you are on its network.',
  'server.failed': () => 'The server met an error of its own. It is written in its log.',
};

type Sentence = (where: string, facts: Facts) => string;

/** The sentence for a refusal; never empty, also for a code that a newer server knows. */
export function sentenceOf(issue: Issue): string {
  const { code, where } = issue;
  const facts = (issue.facts ?? {}) as Facts;
  const sentence = (SENTENCES as unknown as Readonly<Record<string, Sentence>>)[code];
  const said = sentence ? sentence(where, facts) : `${where} (${code})`;
  return facts['path'] === undefined ? said : `${facts['path']}: ${said}`;
}

export const issueCodes: readonly IssueCode[] = Object.keys(SENTENCES) as IssueCode[];
