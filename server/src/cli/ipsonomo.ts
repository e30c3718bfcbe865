import { USAGE } from '@ipsonomo/language/terminal';
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
