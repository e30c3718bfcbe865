import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { acts } from '@ipsonomo/contract';
import type { PackageView, PackageWish } from '@ipsonomo/core/api';
import { reading, useAct } from './act';
import { download } from './files';
import { ask, pathOf } from './http';

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

/** One package of a job: begun, watched until it is ready, saved by the browser; it goes with whoever shows it. */
export function usePackage(job: string): PackageNow {
  const [id, setId] = useState('');
  const beginning = useAct(acts.beginPackage, { job });
  const held = useHeld((made) => ask(acts.endPackage, { job, package: made }));
  const { data, error } = useQuery({
    ...reading(acts.readPackage, { job, package: id }),
    enabled: id !== '',
    refetchInterval: ({ state }) =>
      state.data === undefined || state.data.state === 'writing' ? LOOK_AGAIN : false,
    retry: false,
  });
  const end = () => {
    held.letGo();
    setId('');
  };
  return {
    view: id === '' ? undefined : data,
    error: beginning.error ?? (id === '' ? null : error),
    isBusy: beginning.isPending || (id !== '' && (data === undefined || data.state === 'writing')),
    begin: (wish) => {
      end();
      void beginning
        .mutateAsync(wish)
        .then((made) => held.hold(made.id) && setId(made.id))
        // A refusal is shown from the act itself.
        .catch(() => undefined);
    },
    end,
    save: () => download(pathOf(acts.fetchPackage, { job, package: id })),
  };
}

/** Holds one thing of the server's, and lets it go with the component, also where it comes only after that. */
function useHeld(letGo: (id: string) => Promise<unknown>) {
  const id = useRef('');
  const isGone = useRef(false);
  const latest = useRef(letGo);
  useEffect(() => {
    latest.current = letGo;
  });
  const drop = () => {
    const one = id.current;
    id.current = '';
    // One that is gone already is what was wanted.
    if (one !== '') void latest.current(one).catch(() => undefined);
  };
  useEffect(() => {
    isGone.current = false;
    return () => {
      isGone.current = true;
      drop();
    };
  }, []);
  return {
    /** @returns whether it is still wanted */
    hold: (one: string): boolean => {
      id.current = one;
      if (isGone.current) drop();
      return !isGone.current;
    },
    letGo: drop,
  };
}
