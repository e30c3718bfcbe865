import { NOT_ASKED } from '@ipsonomo/core/vigil';

/** What two threads share of a vigil. */
export interface SharedVigil {
  readonly interfaceIds: readonly string[];
  readonly startedAt: number;
  readonly everyMillis: number;
  /** Beats that fit. */
  readonly capacity: number;
  readonly values: SharedArrayBuffer;
  /** How many beats have begun. */
  readonly count: SharedArrayBuffer;
}

/** Beats of many devices in memory that does not grow: one row of sixteen-bit values for each device. */
export class VigilRing {
  private readonly values: Uint16Array;
  private readonly count: Int32Array;

  constructor(readonly shared: SharedVigil) {
    this.values = new Uint16Array(shared.values);
    this.count = new Int32Array(shared.count);
  }

  static of(fields: Omit<SharedVigil, 'values' | 'count'>): VigilRing {
    const { interfaceIds, capacity } = fields;
    const values = new SharedArrayBuffer(2 * interfaceIds.length * capacity);
    const ring = new VigilRing({ ...fields, values, count: new SharedArrayBuffer(4) });
    ring.values.fill(NOT_ASKED);
    return ring;
  }

  get beats(): number {
    return Atomics.load(this.count, 0);
  }

  begin(beat: number): void {
    Atomics.store(this.count, 0, beat + 1);
  }

  put(device: number, beat: number, value: number): void {
    this.values[device * this.shared.capacity + beat] = value;
  }

  at(device: number, beat: number): number {
    return this.values[device * this.shared.capacity + beat] ?? NOT_ASKED;
  }

  /** Every beat of one device so far. */
  of(device: number): Uint16Array {
    const from = device * this.shared.capacity;
    return this.values.subarray(from, from + this.beats);
  }
}
