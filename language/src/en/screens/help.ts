import { messages } from '../../message';

export const HELP_WORDS = messages({
  help: 'Help',
  helpForThisPage: 'Help for this page',
  thePage: 'This page',
  theStages: 'The five stages of a device',
  planned: 'planned: it has a name and an address in the plan',
  heard: 'heard: it was seen on the wire, by its MAC',
  given: 'given: it has its planned address',
  pinned: 'pinned: it keeps that address, also after power off and on',
  proven: 'proven: it was asked, it is the one that is meant, and it answers there and back',
  theWords: 'The words',
  firstSteps: 'The first steps again',
  back: 'Back to the page',
  plan: 'The subnets and devices of this job, as they are meant to be. Add a subnet, then devices in it; each gets the next free address and a name. What does not fit is told as a snag.',
  assign:
    'The calls: devices that do not have their address yet, in the order in which they are walked. Listen, power a device, and bind what asks to the device it is.',
  prove:
    'Asks devices whether they are there, and whether they are the ones that are meant. What differs stands on top; what was not asked is not proven.',
  handOver:
    'What leaves the job: lists, configurations and what was proven. What the plan still says against itself is named before it leaves.',
  snags:
    'What speaks against the plan, the worst first, by cause. Many have a mend that is shown before it is made; what is meant so is accepted, with a reason.',
  join: 'Where two laptops worked on one job without a network between them, each writes a file, and the other takes it in. What both changed is told: decide which stands. The same file twice changes nothing.',
  revisions:
    'Every change of the plan, by whom and why. Give one a name, hold two against each other, take your last one back.',
  kinds:
    'A kind is what all devices of one order number share. Read a description file, make one of your own, or correct one for this plan.',
  newKind:
    'Six questions make a kind. Switches are drawn as they sit on the device, and tried at once: what a position means, and how it must stand for an address.',
  newDevices:
    'Devices of one kind. A name and the next free address are proposed for each, and can be changed before they are added.',
  newSubnet:
    'A subnet is one network in which devices reach each other without a router. Write it as you know it: with /24, or with 255.255.255.0.',
  import:
    'Devices from a list, one a line. Say which column is what; nothing is changed before you have seen what comes of it, and every bad cell is named by its line.',
  copy: 'A whole machine once more: the same devices with other addresses, or the same addresses in a realm of its own.',
  block:
    'A block of addresses that somebody gave you, split into subnets by what each needs, with room to grow.',
  device: 'One device: what is planned of it, what was seen of it, and what can be done with it.',
  subnet: 'One subnet, address by address: who has it, what is free, what is kept for whom.',
  thing: 'Every field of one thing of the plan. Nothing is written before it is saved.',
  wire: 'Where this job listens and speaks: an adapter of this computer, or a site that rehearses the plan. Nothing is sent before you say so.',
  cabinet:
    'The cabinets of the practice site: power, cables, switches and labels, for your hands instead of real ones.',
  rehearsal:
    'A rehearsal of a plan. What you find wrong you name here; at the end it is told what was not found. Nothing of it counts for the job itself.',
  routes:
    'Which connections the plan needs, and whether they work there and back by the plan and as found. What fails is told hop by hop, with what cures it.',
  tools:
    'What proves beside a run: what is there already, the picture, routes, the controller’s project, codes, vigil, cold start, kept runs.',
  thereAndBack: 'One connection, hop by hop, there and back.',
  lanes: 'One device and everything it is connected with.',
  picture: 'Subnets, routers, and who talks with whom; the way between two of them.',
  known:
    'What a capture, DHCP servers, routers and other machines know already of who is where. Each is held against the plan; MACs that fit, and devices that nobody planned, can be taken into it.',
  written:
    'Every place where an address or a name of the plan is written. Tick it once the right value stands there.',
  codes:
    'What an error code of a controller, a tool or a display means, and what the plan says beside it.',
  controller:
    'Each value as planned, as entered in the controller, and as found in the device. Paste the table of its project to hold it against the plan.',
  drill:
    'The plant is switched off and on again: who comes back by itself, how soon, and who does not.',
  vigil:
    'Devices are asked again and again for some minutes: who drops out, how long, and how often.',
  runs: 'Runs of proofs that were kept, each with what it found.',
  run: 'One run: what was asked, what was found, and what has changed since.',
  causes:
    'Why a device is not there: the likely causes in order, by what was seen, and what to look at for each.',
  call: 'One device on its way to its address, step by step, by the way it has.',
  swap: 'What somebody does who has to exchange this device without you. It can be printed.',
  desk: 'Boxes as they come in: scan the label, and on site the first power-up is answered.',
  howLong:
    'The calls that are left, played without anybody: how long it takes, what holds it up, and what would be quicker.',
  find: 'One field for everything of this job: any part of a name, an address, a MAC, a cabinet, a snag, or what you want to do.',
  wordBind: 'bind: say which device of the plan a MAC is. From then on it is answered.',
  wordLetAnswer:
    'let it answer: for some minutes bound devices are given their address when they ask.',
  wordSilent: 'fall silent: nothing is sent any more, at once.',
  wordStranger: 'stranger: something on the wire that the plan does not know.',
  wordSnag: 'snag: something in the plan that does not fit.',
  wordCall: 'call: a device to which somebody has to go. The round is the order of the calls.',
  wordRealm:
    'realm: a part of the site that has its addresses for itself; another may have the same ones.',
  wordLoan: 'loan: another address for some hours, while the planned one cannot be had.',
  wordWay:
    'way: how a device gets its address: it asks (BootP, DHCP), by switches, by name over layer 2, on a web page …',
});
