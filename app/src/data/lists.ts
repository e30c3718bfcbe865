import { useQuery } from '@tanstack/react-query';
import { acts, keys } from '@ipsonomo/contract';
import type { ListTaking, ListView } from '@ipsonomo/core/api';
import { reading } from './act';
import { ask } from './http';

const LOOK_AGAIN = 250;

const isOnItsWay = (view: ListView | undefined): boolean =>
  view?.state === 'reading' || view?.state === 'waiting';

/** The list as far as it was read. */
export const useList = (job: string, list: string | undefined) =>
  useQuery({
    ...reading(acts.readList, { job, list: list ?? '' }),
    enabled: list !== undefined,
    refetchInterval: ({ state }) => (isOnItsWay(state.data) ? LOOK_AGAIN : false),
  });

/** A sheet of a list as it stands there. */
export const useListLines = (job: string, list = '', sheet: number | undefined) =>
  useQuery({
    queryKey: [...keys.list(list), 'lines', sheet],
    queryFn: () => ask(acts.readListLines, { job, list }, { query: { sheet: String(sheet ?? 0) } }),
    enabled: list !== '' && sheet !== undefined,
  });

/** What would come of the list with its columns taken so. */
export const useListPreview = (job: string, list = '', taking: ListTaking | undefined) =>
  useQuery({
    queryKey: [...keys.list(list), taking],
    queryFn: () => ask(acts.previewList, { job, list }, { body: taking }),
    enabled: list !== '' && taking !== undefined,
    placeholderData: (before) => before,
  });
