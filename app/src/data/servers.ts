import { useQuery } from '@tanstack/react-query';
import type { ServersView } from '@ipsonomo/core/api';
import { acts } from '@ipsonomo/contract';
import { reading } from './act';

/** The servers of the crew, told as they change; undefined until the own one has said. */
export const useServers = (): ServersView | undefined =>
  useQuery(reading(acts.listServers, {})).data;

/** Since when the server has not reached the database; undefined while it does. */
export const useDatabaseAway = (): number | undefined =>
  useServers()?.databaseAwaySince ?? undefined;
