import { decodeHex } from './decode';
import { readCapture } from './capture';
import { subnet } from './subnet';
import type { Command } from './output';

// The core on a command line: one JSON object a line on standard output, sentences on standard
// error, exit code 1 where an input was bad.

const COMMANDS: Readonly<Record<string, Command>> = {
  subnet,
  decode: decodeHex,
  pcap: readCapture,
};

const USAGE = `usage:
  ipsonomo subnet CIDR…    what a network is: 172.22.40.0/24
  ipsonomo decode HEX…     an Ethernet frame, or a bare BootP/DHCP message
  ipsonomo pcap FILE…      every BootP/DHCP message of a capture`;

const [name = '', ...inputs] = process.argv.slice(2);
const command = COMMANDS[name];
if (!command || inputs.length === 0) {
  console.error(USAGE);
  process.exitCode = name === '--help' ? 0 : 1;
} else {
  const print = (line: unknown) => process.stdout.write(`${JSON.stringify(line)}\n`);
  const tell = (sentence: string) => process.stderr.write(`${sentence}\n`);
  for (const input of inputs) if (!command(input, { print, tell })) process.exitCode = 1;
}
