import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SteppedClock } from '@ipsonomo/core/clock';
import type { EvidenceKind } from '@ipsonomo/core/plan';
import { PracticeSite, TERN_COVE } from '@ipsonomo/practice';
import type { FieldEvent, FieldTarget, VigilRing } from '../src/protocol';
import { FieldEngine } from '../src/engine/engine';
import { LAPTOP, planOf } from './bench';
import { capturedIn, wholeCapture } from './captured';

/** Milliseconds of a step in which something is under way. */
const STEP = 10;

/** A seeded generator, so that every run is the same. */
function seeded(seed: number): () => number {
  let state = seed;
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
}

/** The whole engine against the whole practice site, in virtual time. */
export class Site {
  readonly events: FieldEvent[] = [];
  readonly folder = mkdtempSync(join(tmpdir(), 'ipsonomo-practice-'));
  /** Of the vigil that was begun last. */
  ring: VigilRing | undefined;
  private readonly clock = new SteppedClock(1_764_000_000_000);
  readonly site: PracticeSite;
  readonly engine: FieldEngine;

  constructor(targets: readonly FieldTarget[], voices = ['172.22.40.253']) {
    this.site = new PracticeSite(
      TERN_COVE,
      seeded(7),
      (frame) => this.engine.frame(frame),
      this.now(),
    );
    const carrier = {
      source: 'practice',
      mac: LAPTOP,
      send: (frame: Uint8Array) => this.site.fromLaptop(frame, this.now()),
      openTcp: undefined,
      askUdp: undefined,
      close: () => undefined,
    };
    this.engine = new FieldEngine(carrier, this.clock, this.folder, {
      events: (events) => this.events.push(...events),
      heard: () => undefined,
      forgot: () => undefined,
      stations: () => undefined,
      present: () => undefined,
      vigil: (ring) => (this.ring = ring),
      changed: () => undefined,
    });
    this.engine.plan(planOf(targets, voices));
    this.engine.listen('run');
  }

  now = () => this.clock.now();

  async advance(seconds: number): Promise<void> {
    for (const end = this.now() + seconds * 1000; this.now() < end;) {
      this.clock.advance(Math.min(end, Math.max(this.now() + STEP, this.nextAt())));
      // Whoever waited for that moment goes on first.
      await new Promise((resolve) => setImmediate(resolve));
      this.site.run(this.now());
      this.engine.run(this.now());
    }
  }

  /** When anything happens next: nothing is missed by going there at once. */
  private nextAt(): number {
    return Math.min(this.clock.nextAt(), this.site.nextAt(), this.engine.nextAt());
  }

  pin = (interfaceId: string): Promise<void> =>
    this.through(this.engine.acts.pin({ interfaceId, person: 'Mara Quist' }));

  /** Lets time pass until something is over. */
  async through(act: Promise<void>): Promise<void> {
    let over = false;
    // What it fails with is the caller's.
    void act.catch(() => undefined).finally(() => (over = true));
    while (!over) await this.advance(0.1);
    await act;
  }

  async powerCycle(device: string, seconds = 3): Promise<void> {
    this.site.act({ kind: 'power', device, on: false }, this.now());
    await this.advance(seconds);
    this.site.act({ kind: 'power', device, on: true }, this.now());
    await this.advance(10);
  }

  last = (kind: EvidenceKind) => this.events.findLast((event) => event.kind === kind);
  kinds = () => this.events.map((event) => event.kind);
  captured = () => capturedIn(this.folder);
  capture = () => wholeCapture(this.folder);
}
