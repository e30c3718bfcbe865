import { decodeHex } from './decode';
import { describeFile } from './describe';
import { audit } from './audit';
import { readCapture } from './capture';
import { fold } from './fold';
import { exportPlan, verify } from './hand-over';
import { importInto } from './import';
import { key, keys, people } from './keys';
import { names } from './names';
import { each, type Command } from './output';
import { checkPlan, diffPlans, printSchema, split } from './plan';
import { rehearse } from './rehearse';
import { route } from './route';
import { subnet } from './subnet';
import { switches } from './switches';

// The core on a command line: one JSON object a line on standard output, sentences on standard
// error, exit code 1 where an input was bad.

interface Entry {
  readonly run: (...asked: Parameters<Command>) => boolean | Promise<boolean>;
  /** How many inputs it takes at least. */
  readonly least: number;
}

const COMMANDS: Readonly<Record<string, Entry>> = {
  subnet: { run: subnet, least: 1 },
  describe: { run: each(describeFile), least: 1 },
  decode: { run: each(decodeHex), least: 1 },
  pcap: { run: each(readCapture), least: 1 },
  check: { run: checkPlan, least: 1 },
  split: { run: split, least: 2 },
  names: { run: each(names), least: 1 },
  switches: { run: switches, least: 2 },
  diff: { run: diffPlans, least: 2 },
  route: { run: route, least: 3 },
  rehearse: { run: rehearse, least: 1 },
  export: { run: exportPlan, least: 3 },
  import: { run: importInto, least: 1 },
  verify: { run: verify, least: 1 },
  schema: { run: printSchema, least: 0 },
  key: { run: key, least: 0 },
  keys: { run: keys, least: 0 },
  people: { run: people, least: 0 },
  fold: { run: ([days = ''], output) => fold(days, output), least: 1 },
  audit: { run: (inputs, output) => audit(output, inputs.includes('--mend')), least: 0 },
};

const USAGE = `usage:
  ipsonomo subnet NETWORK…             what a network is: 172.22.40.0/24, 10.4.9.77/21, 10.4.9.77 255.255.248.0
  ipsonomo decode HEX…                 an Ethernet frame, or a bare BootP/DHCP message
  ipsonomo pcap FILE…                  every BootP/DHCP message of a capture
  ipsonomo check PLAN…                 the snags of a plan file; exit code 1 where one is wrong
  ipsonomo describe FILE…              the kinds of a description file (EDS, GSDML), and what of it cannot be read
  ipsonomo split BLOCK NEEDS.json      networks for [{"name", "devices", "growthPercent", "fixed"?}]
  ipsonomo names NAME…                 what a name may be used for, and why not
  ipsonomo switches KIND ADDRESS       how the switches must stand
  ipsonomo switches KIND --read 0,8,6  what they say
  ipsonomo diff PLAN PLAN              what makes the second plan of the first
  ipsonomo route PLAN FROM TO          there and back, hop by hop, and why not; devices by address or name
  ipsonomo rehearse PLAN [--people N] [--faults SEED]
                                       how long its round takes, by cabinet, what holds it up, what would save how much
  ipsonomo export PLAN --as csv|xlsx|dnsmasq|dhcpd|kea|hosts|zone|firewall|nftables|labels|connections|targets|… [--out FILE]
                                       a plan file in a format that others read; what it cannot hold is told
  ipsonomo import FILE [--into PLAN] [--out PLAN]
                                       a capture, leases, reservations, what arp, ip neigh, ipconfig and fping print, or a
                                       list of devices (CSV, XLSX), held against a plan and brought into it
  ipsonomo verify PROOF [HEAD]         what a proof shows, and what it does not; HEAD as it is printed on paper
  ipsonomo schema                      the JSON Schema of plan files
  ipsonomo audit                       evidence that somebody changed by hand (DATABASE_URL, else the demo's own)
  ipsonomo audit --mend                what is kept of the latest evidence made anew (DATABASE_OWNER_URL)
  ipsonomo fold DAYS                   evidence older than that which only says once more that a device asked, as a count (DATABASE_OWNER_URL)
  ipsonomo key [look|plan|assign|keep] a key that lets somebody new in, with a QR code for a phone (of the server that runs here)
  ipsonomo people                      every account, and what it may do
  ipsonomo people key NAME             a key with which somebody comes in again, whatever they have forgotten
  ipsonomo people role NAME ROLE       lets them do more, or less
  ipsonomo people end NAME             takes their account away; what they did stays
  ipsonomo keys [take-back ID]         who was let in, and which keys are good; one of them no longer`;

const [name = '', ...inputs] = process.argv.slice(2);
const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
if (!command || inputs.length < command.least) {
  console.error(USAGE);
  process.exitCode = name === '--help' ? 0 : 1;
} else {
  const print = (line: unknown) => process.stdout.write(`${JSON.stringify(line)}\n`);
  const tell = (sentence: string) => process.stderr.write(`${sentence}\n`);
  void Promise.resolve(command.run(inputs, { print, tell })).then((isGood) => {
    if (!isGood) process.exitCode = 1;
  });
}
