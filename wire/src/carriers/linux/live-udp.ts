import { createSocket } from 'node:dgram';
import { formatIpv4 } from '@ipsonomo/core/net';
import type { Borrowings } from './borrowed';
import type { TcpFailure, UdpQuestion } from '../carrier';

/** One datagram through the system's sockets, from a borrowed address, and the first answer of whoever was asked. */
export async function askLiveUdp(
  borrowings: Borrowings,
  adapter: string,
  { from, to, port, data, timeout }: UdpQuestion,
): Promise<Uint8Array | TcpFailure> {
  const address = formatIpv4(from);
  const target = formatIpv4(to);
  const borrowed = await borrowings.borrow({ adapter, address, target }).catch(() => undefined);
  if (!borrowed) return 'no-right';
  return new Promise((resolve) => {
    const socket = createSocket('udp4');
    const end = (result: Uint8Array | TcpFailure) => {
      clearTimeout(timer);
      socket.close();
      void borrowings.giveBack(borrowed).then(() => resolve(result));
    };
    const timer = setTimeout(() => end('silent'), timeout);
    // An answer may come from another port than the one that was asked.
    socket.on('message', (answer, sender) => {
      if (sender.address === target) end(new Uint8Array(answer));
    });
    socket.once('error', () => end('silent'));
    socket.bind({ address }, () => socket.send(data, port, target));
  });
}
