import { createServer } from 'node:net';
import { must, parseIpv4, toMac, toPrefixLength } from '@ipsonomo/core/net';
import { findShelfKind } from '@ipsonomo/core/plan';
import { answerTcpip, identityOf } from '@ipsonomo/practice';

// A device's EtherNet/IP side on the kernel's own TCP. Prints its control word when it changes.
// usage: enip-device ADDRESS[/LENGTH] CONTROL [mute|KIND]: `mute` takes connections and never says a word; a KIND of the shelf says
// what it is.

const [place = '', word = '1', how] = process.argv.slice(2);
const [address = '', length = '24'] = place.split('/');
const kind = findShelfKind(how ?? '');
const identity = kind && identityOf(kind, toMac(0x02bb00000001));
const configured = { address: must(parseIpv4(address)), length: toPrefixLength(Number(length)) };
const said = identity ? { identity } : {};
let control = Number(word);

createServer((socket) => {
  let inbox: Uint8Array = new Uint8Array(0);
  socket.on('error', () => socket.destroy());
  socket.on('data', (data) => {
    if (how === 'mute') return;
    const answer = answerTcpip(
      { control, configured, owned: false, ...said },
      Buffer.concat([inbox, data]),
    );
    inbox = answer.rest;
    if (answer.control !== undefined) {
      control = answer.control;
      console.log(`control ${control}`);
    }
    socket.write(answer.bytes);
    if (answer.ends) socket.end();
  });
}).listen(44818, () => console.log('ready'));
