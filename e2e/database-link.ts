import { mkdtempSync, rmSync } from 'node:fs';
import { connect, createServer, type Server, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** One connection through the link: what comes in here, and what it is sent on by. */
interface Pair {
  readonly near: Socket;
  readonly far: Socket;
}

/**
 * The way from a server to its database, as a network that can be cut: then nothing is refused and nothing ended, it only
 * leads nowhere, as where a cable is pulled between two switches. Mended, what waited goes on its way.
 */
export class DatabaseLink {
  private readonly pairs = new Set<Pair>();
  private isCut = false;

  private constructor(
    private readonly server: Server,
    private readonly folder: string,
    /** Through it. */
    readonly url: string,
  ) {}

  /** @param url of a database on a Unix socket */
  static async open(url: string): Promise<DatabaseLink> {
    const [, socket = '', port = ''] = /@([^:/]+):(\d+)\//.exec(url) ?? [];
    if (!socket.startsWith('%2F')) throw new Error(`no database on a socket: ${url}`);
    const host = decodeURIComponent(socket);
    const folder = mkdtempSync(join(tmpdir(), 'ips-link-'));
    const name = `.s.PGSQL.${port}`;
    const server = createServer({ pauseOnConnect: true });
    const link = new DatabaseLink(server, folder, url.replace(socket, encodeURIComponent(folder)));
    server.on('connection', (near) => link.join(near, join(host, name)));
    await new Promise<void>((resolve) => server.listen(join(folder, name), resolve));
    return link;
  }

  cut(): void {
    this.isCut = true;
    for (const { near, far } of this.pairs) [near, far].forEach((one) => one.pause());
  }

  mend(): void {
    this.isCut = false;
    for (const { near, far } of this.pairs) [near, far].forEach((one) => one.resume());
  }

  close(): void {
    for (const { near, far } of this.pairs) [near, far].forEach((one) => one.destroy());
    this.server.close();
    rmSync(this.folder, { recursive: true, force: true });
  }

  private join(near: Socket, path: string): void {
    const far = connect(path);
    const pair = { near, far };
    this.pairs.add(pair);
    const end = () => {
      this.pairs.delete(pair);
      near.destroy();
      far.destroy();
    };
    for (const [from, to] of [
      [near, far],
      [far, near],
    ] as const)
      from
        .on('data', (data: Buffer) => to.write(data))
        .on('error', end)
        .on('close', end);
    if (this.isCut) far.pause();
    else near.resume();
  }
}
