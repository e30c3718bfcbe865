/** Frames that leave at a time of their own. */
export class Later {
  private waiting: { readonly at: number; readonly frame: Uint8Array }[] = [];

  push(at: number, frame: Uint8Array): void {
    this.waiting.push({ at, frame });
  }

  nextAt(): number {
    return Math.min(Infinity, ...this.waiting.map(({ at }) => at));
  }

  due(now: number): readonly Uint8Array[] {
    const due = this.waiting.filter(({ at }) => at <= now);
    this.waiting = this.waiting.filter(({ at }) => at > now);
    return due.map(({ frame }) => frame);
  }

  clear(): void {
    this.waiting = [];
  }
}
