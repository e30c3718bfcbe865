import type { FieldNotice } from './protocol';

const MOST = 20;

/** The last notices for the link line, newest first; the same one again only moves up. */
export class Notices {
  private all: readonly FieldNotice[] = [];

  get list(): readonly FieldNotice[] {
    return this.all;
  }

  add({ code, facts, at }: FieldNotice): void {
    const same = (one: FieldNotice) =>
      one.code === code && JSON.stringify(one.facts) === JSON.stringify(facts);
    this.all = [{ code, facts, at }, ...this.all.filter((one) => !same(one))].slice(0, MOST);
  }
}
