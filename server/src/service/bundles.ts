import { REVISION_WORDS } from '@ipsonomo/language/kept';
import type { BundleTaken, ClashView, JoinedView } from '@ipsonomo/core/api';
import {
  diffDocs,
  docFromThings,
  readThing,
  THING_TYPES,
  unite,
  type PlanDoc,
  type RevisionMade,
  type ThingDoc,
  type ThingType,
  type United,
  type UnitedClash,
} from '@ipsonomo/core/plan';
import type { Issue } from '@ipsonomo/core/net';
import { LRUCache } from 'lru-cache';
import type { Head, Line } from '../bundles/format';
import { readBundle } from '../bundles/read-bundle';
import { MOST_KEPT } from '../common/most-kept';
import { sha256Of } from '../common/sha256';
import { baseOf, editsOf, writeBundle, type Writing } from '../bundles/write-bundle';
import type { BundleTaking, CarriedLink, CarriedRevision } from '../store/bundle-store';
import { Refusal } from '../store/refusal';
import type { Actor } from './actor';
import type { Told } from './job-teller';
import type { Rehearsals } from './rehearsals';

interface BundlesOf extends Writing {
  readonly rehearsals: Pick<Rehearsals, 'has'>;
  readonly told: Told;
}

/** Lines that are written at once. */
const TOGETHER = 500;
/** Between taking in and joining somebody may change what they do not know to be changed. */
const JOINED_WITHIN = 30_000;
/** Others may change the plan while it is joined. */
const MOST_ATTEMPTS = 10;

/** What clashed, once this much was taken in, at a revision. */
interface Clashed {
  readonly mark: string;
  /** When this much was seen here first. */
  readonly since: number;
  /** Nothing clashes, and nothing will before more is taken in. */
  readonly isSettled: boolean;
  readonly revision: number;
  readonly clashes: readonly UnitedClash[];
}

/** R-UNITE: what goes from one installation to another by a stick, and what comes. */
export class Bundles {
  private readonly clashed = new LRUCache<string, Clashed>({ max: MOST_KEPT });

  constructor(private readonly of: BundlesOf) {}

  async write(
    jobId: string,
  ): Promise<{ readonly name: string; readonly pieces: AsyncIterable<Uint8Array> }> {
    if (this.of.rehearsals.has(jobId)) throw Refusal.of('bundle.rehearsal', '');
    const { name } = await this.of.store.job(jobId);
    return { name: `${name} ${this.of.own.name}.bundle.gz`, pieces: writeBundle(this.of, jobId) };
  }

  /**
   * Takes in what another installation wrote: all of it or nothing, and the second time nothing.
   * @param into the job that is meant; undefined where it may be any
   */
  async take(
    bytes: Uint8Array,
    name: string,
    actor: Actor,
    into: string | undefined,
  ): Promise<BundleTaken> {
    const { store } = this.of;
    const taken = await store.bundles.taking((taking) =>
      new Taking(taking, name, into).all(bytes, actor.name),
    );
    const { job, server, isNew } = taken;
    const clashes = await this.join(job.id, server.name, actor);
    const { name: called } = await store.job(job.id);
    return {
      ...{ jobId: job.id, name: called, isNew, from: server.name, clashes: clashes.length },
      ...{ revisions: taken.revisions, evidence: taken.evidence },
    };
  }

  async joined(jobId: string): Promise<JoinedView> {
    const taken = await this.of.store.bundles.taken(jobId);
    const [last] = taken;
    // Nothing clashes where nobody else changed anything.
    if (!last) return { taken, clashes: [] };
    const { doc, revision } = await this.of.store.planState(jobId);
    const clashes = await this.clashesOf(jobId, `${last.at} ${taken.length}`, revision);
    const settled = new Set(
      (await this.of.store.bundles.settled(jobId)).map(({ stands, lost, what }) =>
        keyOf(stands, lost, what),
      ),
    );
    const left = clashes.filter(
      (one) => !settled.has(keyOf(one.stands.revision, one.lost.revision, whatOf(one))),
    );
    return { taken, clashes: left.map((one) => viewOf(one, doc)) };
  }

  /**
   * Every page asks, at every change. What is changed here is behind all that is known, and only decides: where nothing
   * clashes nothing will before more is taken in.
   */
  private async clashesOf(
    jobId: string,
    mark: string,
    revision: number,
  ): Promise<readonly UnitedClash[]> {
    const known = this.clashed.get(jobId);
    const isSame = known?.mark === mark;
    if (isSame && (known.revision === revision || known.isSettled)) return known.clashes;
    const { united, revision: now } = await this.united(jobId);
    const { clashes } = united;
    const since = isSame ? known.since : performance.now();
    const isSettled = clashes.length === 0 && performance.now() - since > JOINED_WITHIN;
    this.clashed.set(jobId, { mark, since, isSettled, revision: now, clashes });
    return clashes;
  }

  async settle(
    jobId: string,
    clash: Pick<ClashView, 'type' | 'id' | 'field'> & {
      readonly stands: string;
      readonly lost: string | null;
    },
    actor: Actor,
  ): Promise<JoinedView> {
    const { stands, lost, type, id, field } = clash;
    const what = whatOf({ type, id, field: field ?? undefined });
    await this.of.store.bundles.settle(jobId, { stands, lost: lost ?? '', what }, actor.name);
    this.of.told.otherwise(jobId);
    return this.joined(jobId);
  }

  /** Brings the plan to where all that is known leads. @returns what clashed */
  private async join(jobId: string, from: string, actor: Actor): Promise<readonly UnitedClash[]> {
    const { store, told } = this.of;
    for (let attempt = 0; attempt < MOST_ATTEMPTS; attempt += 1) {
      const { united, revision } = await this.united(jobId);
      const change = {
        ...{ jobId, person: actor.name, account: actor.account?.id },
        ...{ what: REVISION_WORDS.joined({ from }), isJoining: true },
      };
      const done = await store.change(change, (state) =>
        state.revision === revision
          ? { edits: diffDocs(state.doc, united.doc), result: true }
          : { edits: [], result: false },
      );
      if (done.result !== true) continue;
      await told.changed(jobId, { ...done, person: actor.name });
      return united.clashes;
    }
    throw Refusal.of('store.conflict', '');
  }

  private async united(
    jobId: string,
  ): Promise<{ readonly united: United; readonly revision: number }> {
    const { store } = this.of;
    for (let attempt = 0; attempt < MOST_ATTEMPTS; attempt += 1) {
      const [{ doc, revision }, history] = await Promise.all([
        store.planState(jobId),
        store.bundles.history(jobId),
      ]);
      if (history.revision !== revision) continue;
      const united = unite(baseOf(doc, history.own), history.all.map(madeOf));
      return { united, revision };
    }
    throw Refusal.of('store.conflict', '');
  }
}

const madeOf = ({ uid, depth, at, person, edits }: CarriedRevision): RevisionMade => ({
  ...{ id: uid, depth, at, person, edits: editsOf(edits) },
});

const whatOf = ({ type, id, field }: Pick<UnitedClash, 'type' | 'id' | 'field'>): string =>
  [type, id, field ?? ''].join('/');
const keyOf = (...parts: readonly string[]): string => parts.join(' ');

function viewOf(clash: UnitedClash, doc: PlanDoc): ClashView {
  const { type, id, field, stands, lost } = clash;
  const thing = doc[type].get(id) ?? (lost.value as ThingDoc | undefined);
  const title = String(thing?.['title'] ?? thing?.['name'] ?? thing?.['address'] ?? id);
  return { type, id, field: field ?? null, title, stands, lost };
}

interface Taken {
  readonly job: Head['job'];
  readonly server: Head['server'];
  readonly isNew: boolean;
  readonly revisions: number;
  readonly evidence: number;
}

/** One bundle on its way in, a few lines at a time. */
class Taking {
  private revisions: CarriedRevision[] = [];
  private links: CarriedLink[] = [];
  private found = { revisions: 0, evidence: 0 };

  constructor(
    private readonly taking: BundleTaking,
    private readonly name: string,
    private readonly into: string | undefined,
  ) {}

  async all(bytes: Uint8Array, person: string): Promise<Taken> {
    let head: Head | undefined;
    let isNew = false;
    for await (const read of readBundle(bytes, this.name)) {
      if ('head' in read) {
        ({ head } = read);
        isNew = await this.begin(head);
      } else await this.line(read.line);
    }
    await this.flush();
    if (!head) throw Refusal.of('bundle.cut', this.name);
    const { job, server } = head;
    const noted = { digest: sha256Of(bytes), serverName: server.name, person, ...this.found };
    await this.taking.note(noted);
    return { job, server, isNew, ...this.found };
  }

  private begin({ job, server, base }: Head): Promise<boolean> {
    if (this.into !== undefined && job.id !== this.into)
      throw Refusal.of('bundle.otherJob', '', { name: job.name });
    return this.taking.begin(job, server.id, docOf(base));
  }

  private async line(line: Line): Promise<void> {
    if ('revision' in line) {
      // Read before it is kept: what cannot be read would be in the way of every plan after it.
      editsOf(line.revision.edits);
      this.revisions.push(line.revision);
    } else if ('link' in line) this.links.push(line.link);
    else {
      await this.flush();
      if ('table' in line) await this.taking.rows(line.table, [line.row]);
      else if ('paper' in line) await this.file('paper', line.paper, line.bytes);
      else await this.file('photo', line.photo, line.bytes);
    }
    if (this.revisions.length >= TOGETHER || this.links.length >= TOGETHER) await this.flush();
  }

  private async file(table: 'paper' | 'photo', id: string, base64: string): Promise<void> {
    const bytes = Buffer.from(base64, 'base64');
    if (sha256Of(bytes) !== id) throw Refusal.of('bundle.changed', this.name);
    await this.taking.file(table, id, bytes);
  }

  private async flush(): Promise<void> {
    const { revisions, links } = this;
    [this.revisions, this.links] = [[], []];
    if (revisions.length > 0) this.found.revisions += await this.taking.revisions(revisions);
    if (links.length > 0) this.found.evidence += await this.taking.links(links);
  }
}

function docOf(base: Head['base']): PlanDoc {
  const issues: Issue[] = [];
  const things = base.flatMap(([name, body]): readonly (readonly [ThingType, ThingDoc])[] => {
    const type = THING_TYPES.find((one) => one === name);
    const thing = type && readThing(type, body as never, name, issues);
    return type && thing ? [[type, thing]] : [];
  });
  if (issues.length > 0) throw new Refusal(issues.slice(0, 5));
  return docFromThings(things);
}
