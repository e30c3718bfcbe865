import type { OpenedAt } from '@ipsonomo/contract';
import type { Certificate } from '../tls/encrypted';
import { Refusal } from '../store/refusal';
import { Opening } from './opening';
import type { RelayDoor } from './relayed-page';

export interface RelayPlace {
  readonly host: string;
  /** The first of the ports that openings have in turn; 0 is any that is free. */
  readonly port: number;
  /** Pages are encrypted as the application is. */
  readonly certificate?: Certificate | undefined;
}

const PATIENCE = 15_000;
/** An origin is a port: one that a browser saw just now is not used again for a while. */
const PORTS = 10;

/** A page that is open, and whose browser it was opened for. */
interface Open {
  readonly opening: Opening;
  readonly owner: string | undefined;
}

/**
 * Hands the page of one device of each job to the browser of the technician who opened it. Each opening is an origin of
 * its own, so that nothing on a device's page can act as a page of Ipsonomo's or of another device's.
 */
export class PageRelay {
  /** By job. */
  private readonly all = new Map<string, Open>();
  private count = 0;

  /**
   * @param doorOf the way to the page that is open in a job
   * @param patience milliseconds a device may take to answer
   */
  constructor(
    private readonly doorOf: (jobId: string) => RelayDoor,
    private readonly place: RelayPlace,
    private readonly patience = PATIENCE,
  ) {}

  /** Begins a new opening and ends the one of this job before. Refuses with `page.noPort` where none of its ports is free. */
  async open(jobId: string, owner?: string): Promise<OpenedAt> {
    this.end(jobId);
    for (let tries = 0; ; tries += 1) {
      const { host, port, certificate } = this.place;
      const opening = new Opening(this.doorOf(jobId), this.patience, certificate);
      const next = port === 0 ? 0 : port + (this.count % PORTS);
      this.count += 1;
      try {
        const at = await opening.listen(host, next);
        this.end(jobId); // somebody may have opened one meanwhile
        this.all.set(jobId, { opening, owner });
        return { port: at, path: opening.path };
      } catch (error) {
        const isTaken = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
        if (!isTaken) throw error;
        if (tries + 1 >= PORTS)
          throw Refusal.of('page.noPort', '', { port, last: port + PORTS - 1 });
      }
    }
  }

  /** Ends what a browser has open that was sent out. */
  closeOf(owner: string): void {
    for (const [jobId, open] of this.all) if (open.owner === owner) this.end(jobId);
  }

  close(): void {
    for (const jobId of this.all.keys()) this.end(jobId);
  }

  private end(jobId: string): void {
    this.all.get(jobId)?.opening.close();
    this.all.delete(jobId);
  }
}
