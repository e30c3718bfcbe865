import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { acts } from '@ipsonomo/contract';
import type { PackageView, PackageWish } from '@ipsonomo/core/api';
import { reading, useAct, useActOn } from './act';
import { download } from './files';
import { pathOf } from './http';

const LOOK_AGAIN = 250;

export interface PackageNow {
  /** Undefined while none was begun. */
  readonly view: PackageView | undefined;
  readonly error: unknown;
  readonly isBusy: boolean;
  begin(wish: PackageWish): void;
  /** Takes it back, wherever it is. */
  end(): void;
  save(): void;
}

/** One package of a job: begun, watched until it is ready, saved by the browser. */
export function usePackage(job: string): PackageNow {
  const [id, setId] = useState('');
  const beginning = useAct(acts.beginPackage, { job });
  const ending = useActOn(acts.endPackage);
  const { data, error } = useQuery({
    ...reading(acts.readPackage, { job, package: id }),
    enabled: id !== '',
    refetchInterval: ({ state }) =>
      state.data === undefined || state.data.state === 'writing' ? LOOK_AGAIN : false,
    retry: false,
  });
  const end = () => {
    if (id !== '') ending.mutate({ params: { job, package: id } });
    setId('');
  };
  return {
    view: id === '' ? undefined : data,
    error: beginning.error ?? (id === '' ? null : error),
    isBusy: beginning.isPending || (id !== '' && (data === undefined || data.state === 'writing')),
    begin: (wish) => {
      end();
      beginning.mutate(wish, { onSuccess: (made) => setId(made.id) });
    },
    end,
    save: () => download(pathOf(acts.fetchPackage, { job, package: id })),
  };
}
