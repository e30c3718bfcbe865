import { REVISION_WORDS } from '@ipsonomo/language/kept';
import type { EditedView, ListLines, ListPreview, ListTaking, ListView } from '@ipsonomo/core/api';
import { changeOf, findDoc, type Edit, type Json, type PlanDoc } from '@ipsonomo/core/plan';
import type { Lists } from '../lists/lists';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { PlanChanger } from './change-plan';
import type { Taking } from './list-answers';
import type { PlanWork } from './plan-work';

/** Devices from a list: read, seen before anything is changed, then taken in one revision. */
export class ListImporter {
  constructor(
    private readonly lists: Lists,
    private readonly store: Store,
    private readonly changer: PlanChanger,
    private readonly planWork: PlanWork,
    private readonly clock: () => number,
  ) {}

  async begin(jobId: string, name: string, bytes: Uint8Array): Promise<string> {
    await this.store.job(jobId);
    return this.lists.begin(jobId, { name, bytes });
  }

  state(jobId: string, listId: string): ListView {
    return this.lists.state(jobId, listId);
  }

  lines(jobId: string, listId: string, sheet: number): Promise<ListLines> {
    const list = this.lists.kept(jobId, listId);
    return this.planWork.listLines({ kind: 'list-lines', jobId, list, sheet });
  }

  preview(jobId: string, listId: string, taking: ListTaking): Promise<ListPreview> {
    return this.planWork.listPreview(this.about(jobId, listId, taking));
  }

  /** Takes every good line; what its columns were is remembered for the next list. */
  async take(jobId: string, listId: string, taking: ListTaking, actor: Actor): Promise<EditedView> {
    const found = await this.planWork.listDevices(this.about(jobId, listId, taking));
    if (found.length === 0) throw Refusal.of('list.nothing', listId);
    const state = this.lists.state(jobId, listId);
    const headings = state.state === 'ready' ? (state.sheets[taking.sheet]?.headings ?? []) : [];
    const { doc } = await this.store.planState(jobId);
    const edits = [...found, ...remember(doc, headings, taking)];
    const devices = devicesOf(found, doc).size;
    const done = await this.changer.write(
      jobId,
      edits,
      taking.update
        ? REVISION_WORDS.broughtUpToDate({ count: devices })
        : REVISION_WORDS.tookFromList({ count: devices }),
      actor,
    );
    this.lists.end(listId);
    return done;
  }

  private about(jobId: string, listId: string, taking: ListTaking): Taking {
    return { jobId, list: this.lists.kept(jobId, listId), taking, now: this.clock() };
  }
}

/** The devices that edits are of, by themselves or by their interfaces. */
function devicesOf(edits: readonly Edit[], doc: PlanDoc): ReadonlySet<string> {
  return new Set(
    edits.flatMap((edit) => {
      if (edit.type === 'device') return [edit.op === 'set' ? edit.id : edit.thing.id];
      if (edit.type !== 'interface') return [];
      const thing = edit.op === 'set' ? findDoc(doc, 'interface', edit.id) : edit.thing;
      return thing ? [String(thing['deviceId'])] : [];
    }),
  );
}

function remember(
  doc: PlanDoc,
  headings: readonly string[],
  { columns }: ListTaking,
): readonly Edit[] {
  const [settings] = doc.settings.values();
  const thing = settings && findDoc(doc, 'settings', settings.id);
  if (!thing) return [];
  const known = new Map(
    ((thing['columns'] ?? []) as readonly { heading: string; field: string }[]).map((one) => [
      one.heading,
      one.field,
    ]),
  );
  headings.forEach((heading, at) => {
    const field = columns[at];
    if (field && heading !== '') known.set(heading.slice(0, 120), field);
  });
  const kept: Json = [...known].slice(-200).map(([heading, field]) => ({ heading, field }));
  return changeOf('settings', thing, { columns: kept });
}
