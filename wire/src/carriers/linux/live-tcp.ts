import { connect } from 'node:net';
import { formatIpv4 } from '@ipsonomo/core/net';
import { REAL_TIME } from '@ipsonomo/threads';
import type { Borrowings } from './borrowed';
import type { TcpFailure, TcpRequest, TcpStream } from '../carrier';

/** A conversation through the system's sockets, from a borrowed address. */
export async function openLiveTcp(
  borrowings: Borrowings,
  adapter: string,
  request: TcpRequest,
): Promise<TcpStream | TcpFailure> {
  const address = formatIpv4(request.from);
  const target = formatIpv4(request.to);
  const borrowed = await borrowings.borrow({ adapter, address, target }).catch(() => undefined);
  if (!borrowed) return 'no-right';
  return new Promise((resolve) => {
    const socket = connect({ host: target, port: request.port, localAddress: address });
    const fail = (why: TcpFailure) => {
      socket.destroy();
      void borrowings.giveBack(borrowed).then(() => resolve(why));
    };
    socket.setTimeout(request.timeout, () => fail('silent'));
    socket.once('error', (error: NodeJS.ErrnoException) =>
      fail(error.code === 'ECONNREFUSED' ? 'refused' : 'silent'),
    );
    socket.once('connect', () => {
      socket.setTimeout(0);
      socket.removeAllListeners('error');
      socket.on('error', () => socket.destroy());
      socket.once('close', () => void borrowings.giveBack(borrowed));
      resolve({
        clock: REAL_TIME.clock,
        write: (data) => void socket.write(data),
        close: () => void socket.end(),
        onData: (take) => socket.on('data', (data) => take(new Uint8Array(data))),
        onClose: (done) => socket.on('close', done),
        pause: () => void socket.pause(),
        resume: () => void socket.resume(),
      });
    });
  });
}
