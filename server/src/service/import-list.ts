import {
  applyEdits,
  changeOf,
  countWrong,
  findDoc,
  findKind,
  findSubnet,
  formatIpv4,
  planOf,
  snagsOf,
  thingsOf,
  type Edit,
  type EditedView,
  type Json,
  type ListLines,
  type ListPreview,
  type ListTaking,
  type ListView,
  type Plan,
  type PlanDoc,
  type PreviewDevice,
} from '@ipsonomo/core';
import type { Lists } from '../lists/lists';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Person, PlanChanger } from './change-plan';

const MOST_SHOWN = 100;
const MOST_BAD = 500;

/** Devices from a list: read, seen before anything is changed, then taken in one revision. */
export class ListImporter {
  constructor(
    private readonly lists: Lists,
    private readonly store: Store,
    private readonly changer: PlanChanger,
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
    return this.lists.lines(jobId, listId, sheet);
  }

  async preview(jobId: string, listId: string, taking: ListTaking): Promise<ListPreview> {
    const { doc } = await this.store.planState(jobId);
    const { made, count } = await this.make(jobId, listId, taking, doc);
    const before = planOf(doc);
    const outcome = applyEdits(doc, made.edits);
    const after = outcome.ok ? planOf(outcome.value.doc) : before;
    return {
      count,
      badLines: new Set(made.bad.map((one) => one.row)).size,
      bad: made.bad.slice(0, MOST_BAD),
      devices: after.devices
        .slice(before.devices.length, before.devices.length + MOST_SHOWN)
        .map((device) => previewOf(after, device)),
      wrong: countWrong(snagsOf(after)) - countWrong(snagsOf(before)),
    };
  }

  /** Takes every good line; what its columns were is remembered for the next list. */
  async take(
    jobId: string,
    listId: string,
    taking: ListTaking,
    person: Person,
  ): Promise<EditedView> {
    const { doc } = await this.store.planState(jobId);
    const { made } = await this.make(jobId, listId, taking, doc);
    if (made.edits.length === 0) throw Refusal.of('list.nothing', listId);
    const state = this.lists.state(jobId, listId);
    const headings = state.state === 'ready' ? (state.sheets[taking.sheet]?.headings ?? []) : [];
    const edits = [...made.edits, ...remember(doc, headings, taking)];
    const devices = made.edits.filter((one) => one.type === 'device').length;
    const done = await this.changer.write(
      jobId,
      edits,
      `took ${devices} devices from a list`,
      person,
    );
    this.lists.end(listId);
    return done;
  }

  private make(jobId: string, listId: string, taking: ListTaking, doc: PlanDoc) {
    return this.lists.make(jobId, listId, taking, thingsOf(doc), this.clock());
  }
}

function previewOf(plan: Plan, device: Plan['devices'][number]): PreviewDevice {
  const [at] = device.interfaces;
  return {
    ...{ title: device.title, name: device.name },
    address: at ? formatIpv4(at.address) : '',
    subnet: (at && findSubnet(plan, at.subnetId)?.name) ?? '',
    kind: findKind(plan, device.kindId)?.name ?? device.kindId,
  };
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
