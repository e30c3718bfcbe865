import { execFile } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { networkInterfaces } from 'node:os';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import { Turns } from '@ipsonomo/threads';

const run = promisify(execFile);

/** A second address on an adapter, and a way through it to one target. */
export interface Borrowed {
  readonly adapter: string;
  readonly address: string;
  readonly target: string;
  /** The adapter had the address before: only the way is borrowed. */
  readonly hadIt: boolean;
}

const FILES = /^borrowed.*\.json$/;

/** Where the wire of this name writes what it has borrowed. */
export const borrowedFile = (folder: string, name: string): string =>
  join(folder, `borrowed-${name}.json`);

/** What wires of a server that crashed left on adapters comes off, whichever of them are opened again. */
export async function undoBorrowings(folder: string): Promise<void> {
  if (!existsSync(folder)) return;
  for (const file of readdirSync(folder).filter((one) => FILES.test(one)))
    await new Borrowings(join(folder, file)).undoLeftOver();
}

/** Runs `ip` with these words; @throws where it refuses. */
type Ip = (...args: string[]) => Promise<unknown>;

const systemIp: Ip = (...args) => run('ip', args);
const quiet = () => undefined;
type OnAdapter = Pick<Borrowed, 'adapter' | 'address'>;

const sameAddress = (a: OnAdapter, b: OnAdapter): boolean =>
  a.adapter === b.adapter && a.address === b.address;

/**
 * Second addresses that are on an adapter for as long as a conversation lasts. What is on is written
 * to a file first, so that a crash leaves nothing behind: the next start takes it off.
 */
export class Borrowings {
  private held: readonly Borrowed[] = [];
  /**
   * One at a time: a route from an address that is not on yet is refused, and two that leave together
   * would each take the other for still there.
   */
  private readonly turns = new Turns();

  constructor(
    private readonly undoFile: string,
    private readonly ip: Ip = systemIp,
  ) {}

  /**
   * Puts the address on, and a route to this one target that is narrower than any other, so that no
   * other adapter with the same subnet can take the conversation.
   * @throws where the right to do so (cap_net_admin) is missing
   */
  borrow(wanted: Omit<Borrowed, 'hadIt'>): Promise<Borrowed> {
    return this.turns.take(() => this.putOn(wanted));
  }

  /** Takes it off, the address once nobody else speaks from it. */
  giveBack(one: Borrowed): Promise<void> {
    return this.turns.take(() => this.release(one));
  }

  private async putOn(wanted: Omit<Borrowed, 'hadIt'>): Promise<Borrowed> {
    const before = this.held.find((other) => sameAddress(wanted, other));
    const one: Borrowed = { ...wanted, hadIt: before ? before.hadIt : isOwn(wanted) };
    this.held = [...this.held, one];
    this.save();
    try {
      if (!before && !one.hadIt)
        await this.ip('addr', 'add', `${one.address}/32`, 'dev', one.adapter);
      await this.ip('route', 'replace', `${one.target}/32`, 'dev', one.adapter, 'src', one.address);
      return one;
    } catch (error) {
      await this.release(one);
      throw error;
    }
  }

  private async release(one: Borrowed): Promise<void> {
    const place = this.held.indexOf(one);
    if (place < 0) return;
    const rest = this.held.filter((_, index) => index !== place);
    await this.takeOff(one, rest);
    this.held = rest;
    this.save();
  }

  /** What a crash left on an adapter comes off. */
  async undoLeftOver(): Promise<void> {
    if (!existsSync(this.undoFile)) return;
    const left = JSON.parse(readFileSync(this.undoFile, 'utf8')) as readonly Borrowed[];
    for (const one of left) await this.takeOff(one, []);
    rmSync(this.undoFile, { force: true });
  }

  private save(): void {
    if (this.held.length === 0) return rmSync(this.undoFile, { force: true });
    mkdirSync(dirname(this.undoFile), { recursive: true });
    // Renamed into place: a crash in the middle leaves the old file or the new one, never half of it.
    writeFileSync(`${this.undoFile}.new`, JSON.stringify(this.held));
    renameSync(`${this.undoFile}.new`, this.undoFile);
  }

  /** Nothing to do where the adapter is gone, and its addresses and routes with it. */
  private async takeOff(one: Borrowed, others: readonly Borrowed[]): Promise<void> {
    if (!others.some((other) => sameAddress(one, other) && one.target === other.target))
      await this.ip('route', 'del', `${one.target}/32`, 'dev', one.adapter).catch(quiet);
    if (!one.hadIt && !others.some((other) => sameAddress(one, other)))
      await this.ip('addr', 'del', `${one.address}/32`, 'dev', one.adapter).catch(quiet);
  }
}

/** An address the adapter has anyway must not be taken off afterwards. */
const isOwn = ({ adapter, address }: OnAdapter): boolean =>
  (networkInterfaces()[adapter] ?? []).some((one) => one.address === address);
