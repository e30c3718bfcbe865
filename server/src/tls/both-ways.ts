import { hostname, networkInterfaces } from 'node:os';
import type { RequestListener, ServerOptions } from 'node:http';
import type { Server as TlsServer } from 'node:https';
import type { AuthorityView } from '@ipsonomo/core/api';
import { Authority, type MachineNames } from './authority';
import { webServer } from './encrypted';

/** A laptop that is carried to another hall has other addresses there; its certificate follows. */
const LOOKED_AT = 60_000;

/** The names and addresses under which this machine can be opened. */
export function machineNames(): MachineNames {
  const name = hostname();
  const own = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ family }) => family === 'IPv4')
    .map(({ address }) => address);
  return { dns: [name, `${name}.local`, 'localhost'], ip: own };
}

/** The same application encrypted, beside the port at which it is not, for those who trust its authority. */
export interface Encrypted {
  readonly view: AuthorityView & { readonly port: number };
  /** What a phone is given to trust. */
  readonly der: Buffer;
  server(options: ServerOptions, app: RequestListener): TlsServer;
}

/** @param folder where the authority is kept */
export async function bothWays(folder: string, port: number): Promise<Encrypted> {
  const authority = await Authority.open(folder, `Ipsonomo on ${hostname()}`, Date.now);
  let certificate = await authority.certificateFor(machineNames());
  return {
    view: { port, fingerprint: await authority.fingerprint() },
    der: authority.der,
    server: (options, app) => {
      const server = webServer(certificate, options, app) as TlsServer;
      const look = async () => {
        const now = await authority.certificateFor(machineNames());
        if (now.cert.equals(certificate.cert)) return;
        certificate = now;
        server.setSecureContext({ ...now, minVersion: 'TLSv1.2' });
      };
      // Where it cannot be written the one that is there stays.
      const timer = setInterval(() => void look().catch(() => undefined), LOOKED_AT);
      timer.unref();
      server.once('close', () => clearInterval(timer));
      return server;
    },
  };
}
