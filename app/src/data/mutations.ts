import { useMutation, useQueryClient } from '@tanstack/react-query';
import type {
  Binding,
  CabinetAction,
  CabinetView,
  Edit,
  EditedView,
  FieldView,
  GoingOn,
  NewSubnet,
  ReadOff,
  RegisterWish,
  StationGiving,
  SetBack,
  StationReset,
  WireChoice,
} from '@ipsonomo/core';
import { watchOf } from './clashes';
import { putField } from './wire-news';
import { patch, post, postFile } from './http';
import { keys, planAfter, type PlanNow } from './queries';

/** A mutation whose success makes everything of the job be read again. */
function useJobMutation<T, R>(job: string, act: (input: T) => Promise<R>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: () => client.invalidateQueries({ queryKey: keys.job(job) }),
  });
}

/** A mutation that answers with how the wire stands then. */
function useFieldMutation<T>(act: (input: T) => Promise<FieldView>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: (field) => putField(client, field),
  });
}

export function useAddJob() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (name: string) => post<{ id: string }>('/jobs', { name }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.jobs }),
  });
}

export function useAddJobFromFile() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => postFile<{ id: string }>('/jobs/from-file', file, 'text/plain'),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.jobs }),
  });
}

const planAfterNext = (known: PlanNow | undefined, edited: EditedView): PlanNow | undefined =>
  known && edited.revision === known.revision + 1 ? planAfter(known, edited) : undefined;

/** What to change, and why. */
export interface Editing {
  readonly edits: readonly Edit[];
  readonly why: string;
}

/** The plan of the page moves on at once by what the server made of the change. */
export function useEditing<T>(job: string, act: (input: T) => Promise<EditedView>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: (edited) => {
      watchOf(job).noteMine(edited.revision, edited.edits);
      const known = client.getQueryData<PlanNow>(keys.plan(job));
      // Where it was told before this answer came, it is looked at once more, now that it is known to be mine.
      const isTold = known !== undefined && known.revision >= edited.revision;
      const next = isTold ? { ...known } : planAfterNext(known, edited);
      if (next) client.setQueryData<PlanNow>(keys.plan(job), next);
      else void client.invalidateQueries({ queryKey: keys.plan(job) });
      void client.invalidateQueries({ queryKey: keys.revisions(job) });
    },
    // Refused because somebody else was there first: this page has to see what they did.
    onError: () => client.invalidateQueries({ queryKey: keys.plan(job) }),
  });
}

export const useEdit = (job: string) =>
  useEditing(job, (editing: Editing) => post<EditedView>(`/jobs/${job}/edits`, editing));

export const useTakeBack = (job: string, which: 'undo' | 'redo') =>
  useEditing<void>(job, () => post<EditedView>(`/jobs/${job}/${which}`));

export const useNameRevision = (job: string) =>
  useJobMutation(job, ({ number, name }: { readonly number: number; readonly name: string }) =>
    patch(`/jobs/${job}/revisions/${number}`, { name }),
  );

export const useAddSubnet = (job: string) =>
  useJobMutation(job, (subnet: NewSubnet) => post<{ id: string }>(`/jobs/${job}/subnets`, subnet));

const at = (job: string, id: string, act: string) => `/jobs/${job}/interfaces/${id}/${act}`;

export const useBind = (job: string, id: string) =>
  useJobMutation(job, (binding: Binding) => post(at(job, id, 'bind'), binding));

/** The acts on one interface that need nothing but its id. */
export const useInterfaceAct = (
  job: string,
  id: string,
  act: 'unbind' | 'pin' | 'said-kept' | 'said-given' | 'watch-power' | 'follow',
) => useJobMutation<GoingOn | void, void>(job, (going) => post(at(job, id, act), going ?? {}));

export const useSaySetBack = (job: string, id: string) =>
  useJobMutation(job, (back: SetBack) => post(at(job, id, 'said-set-back'), back));

export const useSayOneDevice = (job: string, id: string) =>
  useJobMutation(job, (said: SetBack) => post(at(job, id, 'said-one-device'), said));

export const useReadOff = (job: string, id: string) =>
  useJobMutation(job, (read: ReadOff) => post(at(job, id, 'read-off'), read));

/** Opens the web page of a device and tells at which port of this server it is read. */
export const useOpenPage = (job: string, id: string) =>
  useJobMutation<void, { readonly port: number; readonly path: string }>(job, () =>
    post(at(job, id, 'page')),
  );

/** A cold start that is watched: about to be switched off, on again, over. */
export const useDrill = (job: string) =>
  useJobMutation(job, (step: 'begin' | 'on' | 'end') => post(`/jobs/${job}/drill`, { step }));

/** Walks to a device from an address in a subnet. */
export const useWalk = (job: string, id: string) =>
  useJobMutation(job, (walk: { readonly subnetId: string }) => post(at(job, id, 'walk'), walk));

/** Reads one register; nothing is written. */
export const useReadRegister = (job: string, id: string) =>
  useJobMutation(job, (wish: RegisterWish) => post(at(job, id, 'read-register'), wish));

/** Asks along a route path who is at its end. */
export const useAskPath = (job: string, id: string) =>
  useJobMutation(job, (asked: { readonly from: string }) => post(at(job, id, 'ask-path'), asked));

/** Asks for every address, and over layer 2. */
export const useSweep = (job: string) =>
  useJobMutation<void, void>(job, () => post(`/jobs/${job}/sweep`));

export const useSearch = (job: string) =>
  useJobMutation<void, void>(job, () => post(`/jobs/${job}/stations/search`));

export const useFlash = (job: string) =>
  useJobMutation(job, (mac: string) =>
    post(`/jobs/${job}/stations/${encodeURIComponent(mac)}/flash`),
  );

export const useGiveStation = (job: string, id: string) =>
  useJobMutation(job, (giving: StationGiving) => post(at(job, id, 'station'), giving));

export const useResetStation = (job: string, id: string) =>
  useJobMutation(job, (reset: StationReset) => post(at(job, id, 'station/reset'), reset));

export const useCheck = (job: string) =>
  useJobMutation(job, (interfaceIds: readonly string[]) =>
    post(`/jobs/${job}/check`, { interfaceIds }),
  );

export const useNoteHandOver = (job: string) =>
  useJobMutation<void, void>(job, () => post(`/jobs/${job}/hand-overs`));

export const useChooseWire = () =>
  useFieldMutation((choice: WireChoice) => post<FieldView>('/field/wire', choice));

export const useNoticeRead = () =>
  useFieldMutation((notice: { readonly code: string; readonly at: number }) =>
    post<FieldView>('/field/notices/read', notice),
  );

export const useListen = () =>
  useFieldMutation((jobId: string) => post<FieldView>('/field/listen', { jobId }));

export const useRest = () => useFieldMutation<void>(() => post<FieldView>('/field/rest'));

export const useArm = () =>
  useFieldMutation((minutes: number) => post<FieldView>('/field/arm', { minutes }));

export const useSilence = () => useFieldMutation<void>(() => post<FieldView>('/field/silence'));

const CABINET = ['cabinet'];

/**
 * What somebody does at the cabinets, one after the other. A switch that is turned stands there at once: the next turn
 * goes on from it, however long the server takes; what it answers counts once nothing more is under way.
 */
export function useCabinetAct() {
  const client = useQueryClient();
  return useMutation({
    ...{ mutationKey: CABINET, scope: { id: 'cabinet' } },
    mutationFn: (action: CabinetAction) => post<CabinetView>('/practice/cabinet', { action }),
    onMutate: (action) =>
      void client.setQueryData<CabinetView>(keys.cabinet, (view) => view && turned(view, action)),
    onSuccess: (view) => {
      if (client.isMutating({ mutationKey: CABINET }) === 1)
        client.setQueryData(keys.cabinet, view);
    },
    onError: () => client.invalidateQueries({ queryKey: keys.cabinet }),
  });
}

function turned(view: CabinetView, action: CabinetAction): CabinetView {
  if (action.kind !== 'turn') return view;
  const { device, positions } = action;
  const devices = view.devices.map((one) => (one.id === device ? { ...one, positions } : one));
  return { ...view, devices };
}
