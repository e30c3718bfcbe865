import { createInterface } from 'node:readline';
import { must } from '@ipsonomo/core/net';
import { parseHex } from '@ipsonomo/core/wire';
import { Borrowings } from '../../wire/src/carriers/linux/borrowed';
import { LiveCarrier } from '../../wire/src/carriers/linux/live-carrier';

// Puts frames on `eth0` of the namespace it runs in, one line of hex a frame, as fast as they come.

const carrier = new LiveCarrier('eth0', new Borrowings('/nowhere'), {
  frame: () => undefined,
  link: () => undefined,
});
createInterface(process.stdin)
  .on('line', (line) => carrier.send(must(parseHex(line))))
  .on('close', () => process.exit(0));
