import { useQuery } from '@tanstack/react-query';
import type { HeardView, PresentView, StationView } from '@ipsonomo/core/api';
import { useEffect } from 'react';
import { acts } from '@ipsonomo/contract';
import { ask } from './http';
import { useJobHere } from './job-here';
import { fieldQuery, heardQuery, presentQuery, stationsQuery, trafficQuery } from './queries';
import { useNow, useTimeOf } from './use-now';
import { useIsAnswering, useSkew, type FieldNow, type Traffic } from './wire-news';

export interface WireNow {
  readonly field: FieldNow | undefined;
  /** The server's time. */
  readonly now: number;
  /** May anything leave at this moment? */
  readonly isSending: boolean;
}

/** The wire of this page's job as it stands, for who needs no clock: it is drawn again when something has changed, not every second. */
export const useField = (): FieldNow | undefined => useQuery(fieldQuery(useJobHere())).data;

/** Whether anybody listens on it. */
export const isListening = (field: FieldNow | undefined): boolean =>
  field !== undefined && field.runId !== null;

/** What was counted and heard on it: changes with every frame. */
export const useTraffic = (): Traffic | undefined => useQuery(trafficQuery(useJobHere())).data;

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
  const isAnswering = useIsAnswering();
  useEffect(() => {
    if (!isAnswering) return undefined;
    const tell = () => void ask(acts.here, {}).catch(() => undefined); // away: it will notice
    tell();
    const timer = setInterval(tell, HERE_EVERY);
    return () => clearInterval(timer);
  }, [isAnswering]);
}

export function useStations(): readonly StationView[] {
  return useQuery(stationsQuery(useJobHere())).data ?? [];
}

/** Everybody seen with an address in this run. */
export function usePresent(): readonly PresentView[] {
  return useQuery(presentQuery(useJobHere())).data ?? [];
}

export function useHeard(): readonly HeardView[] {
  return useQuery(heardQuery(useJobHere())).data ?? NOBODY;
}

/** One and the same, so that whoever works with it need not begin anew. */
const NOBODY: readonly HeardView[] = [];
