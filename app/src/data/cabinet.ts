import { useMutation, useQueryClient } from '@tanstack/react-query';
import { acts, keys } from '@ipsonomo/contract';
import type { CabinetAction, CabinetView } from '@ipsonomo/core/api';
import { ask } from './http';
import { useJobHere } from './job-here';

/**
 * What somebody does at the cabinets, one after the other. A switch that is turned stands there at once: the next turn
 * goes on from it, however long the server takes; what it answers counts once nothing more is under way.
 */
export function useCabinetAct() {
  const client = useQueryClient();
  const job = useJobHere();
  const queryKey = keys.cabinet(job);
  return useMutation({
    ...{ mutationKey: queryKey, scope: { id: `cabinet ${job}` } },
    mutationFn: (action: CabinetAction) => ask(acts.actAtCabinet, { job }, { body: { action } }),
    onMutate: (action) =>
      void client.setQueryData<CabinetView>(queryKey, (view) => view && turned(view, action)),
    onSuccess: (view) => {
      if (client.isMutating({ mutationKey: queryKey }) === 1) client.setQueryData(queryKey, view);
    },
    onError: () => client.invalidateQueries({ queryKey }),
  });
}

function turned(view: CabinetView, action: CabinetAction): CabinetView {
  if (action.kind !== 'turn') return view;
  const { device, positions } = action;
  const devices = view.devices.map((one) => (one.id === device ? { ...one, positions } : one));
  return { ...view, devices };
}
