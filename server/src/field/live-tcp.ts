import { execFile } from 'node:child_process';
import { existsSync, readFileSync, rmSync, writeFileSync, mkdirSync } from 'node:fs';
import { connect } from 'node:net';
import { dirname } from 'node:path';
import { promisify } from 'node:util';
import { formatIpv4 } from '@ipsonomo/core';
import type { TcpFailure, TcpRequest, TcpStream } from './carrier';

const run = promisify(execFile);

interface Borrowed {
  readonly adapter: string;
  readonly address: string;
  readonly target: string;
}

let undoFile: string | undefined;

/** Names the file that says what has to be taken off again after a crash. */
export const setUndoFile = (path: string): void => {
  undoFile = path;
};

const addressArgs = ({ adapter, address }: Borrowed) => ['dev', adapter, `${address}/32`];

/**
 * Puts a second address on the adapter, and a way to this one target that is narrower than any
 * other, so that no other adapter with the same subnet can take the conversation.
 */
async function borrow(one: Borrowed): Promise<void> {
  if (undoFile) {
    mkdirSync(dirname(undoFile), { recursive: true });
    writeFileSync(undoFile, JSON.stringify(one));
  }
  const [, adapter, address] = addressArgs(one);
  await run('ip', ['addr', 'add', address ?? '', 'dev', adapter ?? '']);
  await run('ip', ['route', 'replace', `${one.target}/32`, 'dev', one.adapter, 'src', one.address]);
}

/** Takes it off again; nothing to do where the adapter is gone, and its addresses with it. */
async function giveBack(one: Borrowed): Promise<void> {
  const quiet = () => undefined;
  await run('ip', ['route', 'del', `${one.target}/32`, 'dev', one.adapter]).catch(quiet);
  await run('ip', ['addr', 'del', `${one.address}/32`, 'dev', one.adapter]).catch(quiet);
  if (undoFile) rmSync(undoFile, { force: true });
}

/** What a crash left on an adapter comes off again. */
export async function undoLeftOver(): Promise<void> {
  if (!undoFile || !existsSync(undoFile)) return;
  try {
    await giveBack(JSON.parse(readFileSync(undoFile, 'utf8')) as Borrowed);
  } catch {
    rmSync(undoFile, { force: true }); // cut in the middle of being written: nothing was added yet
  }
}

/** A conversation through the system's sockets from a borrowed address. */
export async function openLiveTcp(
  adapter: string,
  request: TcpRequest,
): Promise<TcpStream | TcpFailure> {
  const address = formatIpv4(request.from);
  const target = formatIpv4(request.to);
  const borrowed: Borrowed = { adapter, address, target };
  try {
    await borrow(borrowed);
  } catch {
    await giveBack(borrowed);
    return 'no-right';
  }
  return new Promise((resolve) => {
    const socket = connect({ host: target, port: request.port, localAddress: address });
    const fail = (why: TcpFailure) => {
      socket.destroy();
      void giveBack(borrowed).then(() => resolve(why));
    };
    socket.setTimeout(request.timeout, () => fail('silent'));
    socket.once('error', (error: NodeJS.ErrnoException) =>
      fail(error.code === 'ECONNREFUSED' ? 'refused' : 'silent'),
    );
    socket.once('connect', () => {
      socket.setTimeout(0);
      socket.removeAllListeners('error');
      socket.on('error', () => socket.destroy());
      socket.once('close', () => void giveBack(borrowed));
      resolve({
        write: (data) => void socket.write(data),
        close: () => void socket.end(),
        onData: (take) => socket.on('data', (data) => take(new Uint8Array(data))),
        onClose: (done) => socket.on('close', done),
      });
    });
  });
}
