import { useQuery } from '@tanstack/react-query';
import type { HeardView, PresentView, StationView } from '@ipsonomo/core/api';
import { useEffect } from 'react';
import { acts } from '@ipsonomo/contract';
import { ask } from './http';
import { fieldQuery, heardQuery, presentQuery, stationsQuery, trafficQuery } from './queries';
import { useNow, useTimeOf } from './use-now';
import { useSkew, type FieldNow, type Traffic } from './wire-news';

export interface WireNow {
  readonly field: FieldNow | undefined;
  /** The server's time. */
  readonly now: number;
  /** May anything leave at this moment? */
  readonly isSending: boolean;
}

/** The wire as it stands, for who needs no clock: it is drawn again when something has changed, not every second. */
export const useField = (): FieldNow | undefined => useQuery(fieldQuery).data;

/** What was counted and heard on it: changes with every frame. */
export const useTraffic = (): Traffic | undefined => useQuery(trafficQuery).data;

/** The server's time as it was when the last of these times passed. */
export function useTimeThereOf(times: readonly number[]): number {
  return useTimeOf(times, useSkew());
}

/** The wire as it stands, with a clock that is the server's. */
export function useWire(): WireNow {
  const field = useField();
  const now = useNow(useSkew());
  const answering = (field?.answeringUntil ?? 0) > now;
  return { field, now, isSending: answering || (field?.tasks.length ?? 0) > 0 };
}

const HERE_EVERY = 5000;

/** While anything is answered, the server is told that somebody is still here to see it. */
export function usePresence(): void {
  const isAnswering = (useQuery(fieldQuery).data?.answeringUntil ?? null) !== null;
  useEffect(() => {
    if (!isAnswering) return undefined;
    const tell = () => void ask(acts.here, {}).catch(() => undefined); // away: it will notice
    tell();
    const timer = setInterval(tell, HERE_EVERY);
    return () => clearInterval(timer);
  }, [isAnswering]);
}

export function useStations(): readonly StationView[] {
  return useQuery(stationsQuery).data ?? [];
}

/** Everybody seen with an address in this run. */
export function usePresent(): readonly PresentView[] {
  return useQuery(presentQuery).data ?? [];
}

export function useHeard(): readonly HeardView[] {
  return useQuery(heardQuery).data ?? NOBODY;
}

/** One and the same, so that whoever works with it need not begin anew. */
const NOBODY: readonly HeardView[] = [];
