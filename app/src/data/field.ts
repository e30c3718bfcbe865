import { useQuery } from '@tanstack/react-query';
import type { FieldView, HeardView, StationView } from '@ipsonomo/core';
import { fieldQuery, heardQuery, stationsQuery } from './queries';
import { useNow } from './use-now';

export interface WireNow {
  readonly field: FieldView | undefined;
  /** The server's time. */
  readonly now: number;
  /** May anything leave at this moment? */
  readonly isSending: boolean;
}

/** The wire as it stands, with a clock that is the server's. */
export function useWire(): WireNow {
  const { data: field, dataUpdatedAt } = useQuery(fieldQuery);
  const now = useNow(field ? field.now - dataUpdatedAt : 0);
  const answering = (field?.answeringUntil ?? 0) > now;
  return { field, now, isSending: answering || (field?.tasks.length ?? 0) > 0 };
}

export function useStations(): readonly StationView[] {
  return useQuery(stationsQuery).data ?? [];
}

export function useHeard(): readonly HeardView[] {
  return useQuery(heardQuery).data ?? [];
}
