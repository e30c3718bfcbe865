import type { Socket } from 'node:net';

const sockets = new WeakSet<Socket>();

/** Notes that a connection came through the server's Unix socket; a closed one no longer tells by its addresses. */
export const noteMachine = (socket: Socket): void => void sockets.add(socket);

/** Whether whoever asks is the machine's own person, by the rights of that socket's file. */
export const isMachine = (request: { readonly socket: Socket }): boolean =>
  sockets.has(request.socket);
