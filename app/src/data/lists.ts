import { queryOptions, useMutation, useQuery } from '@tanstack/react-query';
import type { EditedView, ListLines, ListPreview, ListTaking, ListView } from '@ipsonomo/core';
import { get, post, postFile } from './http';
import { useEditing } from './mutations';

const LOOK_AGAIN = 250;

const at = (job: string, list: string) => `/jobs/${job}/lists/${list}`;

/** Sends a list to be read; answers with its id. */
export const useSendList = (job: string) =>
  useMutation({
    mutationFn: (file: File) =>
      postFile<{ id: string }>(
        `/jobs/${job}/lists?name=${encodeURIComponent(file.name)}`,
        file,
        'application/octet-stream',
      ),
  });

const listQuery = (job: string, list: string | undefined) =>
  queryOptions({
    queryKey: ['list', list],
    queryFn: () => get<ListView>(at(job, list ?? '')),
    enabled: list !== undefined,
    refetchInterval: ({ state }) => (isOnItsWay(state.data) ? LOOK_AGAIN : false),
  });

const isOnItsWay = (view: ListView | undefined): boolean =>
  view?.state === 'reading' || view?.state === 'waiting';

/** The list as far as it was read. */
export const useList = (job: string, list: string | undefined) => useQuery(listQuery(job, list));

/** A sheet of a list as it stands there. */
export const useListLines = (job: string, list: string | undefined, sheet: number | undefined) =>
  useQuery({
    queryKey: ['list', list, 'lines', sheet],
    queryFn: () => get<ListLines>(`${at(job, list ?? '')}/lines?sheet=${sheet ?? 0}`),
    enabled: list !== undefined && sheet !== undefined,
  });

/** What would come of the list with its columns taken so. */
export const useListPreview = (
  job: string,
  list: string | undefined,
  taking: ListTaking | undefined,
) =>
  useQuery({
    queryKey: ['list', list, taking],
    queryFn: () => post<ListPreview>(`${at(job, list ?? '')}/preview`, taking),
    enabled: list !== undefined && taking !== undefined,
    placeholderData: (before) => before,
  });

export const useTakeList = (job: string, list: string) =>
  useEditing(job, (taking: ListTaking) => post<EditedView>(`${at(job, list)}/take`, taking));
