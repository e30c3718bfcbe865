import { createServer } from 'node:net';
import { parseIpv4, toPrefixLength, must } from '@ipsonomo/core';
import { answerTcpip } from '@ipsonomo/practice';

// A device's EtherNet/IP side on the kernel's own TCP. Prints its control word when it changes.
// usage: enip-device ADDRESS CONTROL [mute]: `mute` takes connections and never says a word.

const [address = '', word = '1', mute] = process.argv.slice(2);
const configured = { address: must(parseIpv4(address)), length: toPrefixLength(24) };
let control = Number(word);

createServer((socket) => {
  let inbox: Uint8Array = new Uint8Array(0);
  socket.on('error', () => socket.destroy());
  socket.on('data', (data) => {
    if (mute) return;
    const answer = answerTcpip({ control, configured, owned: false }, Buffer.concat([inbox, data]));
    inbox = answer.rest;
    if (answer.control !== undefined) {
      control = answer.control;
      console.log(`control ${control}`);
    }
    socket.write(answer.bytes);
    if (answer.ends) socket.end();
  });
}).listen(44818, () => console.log('ready'));
