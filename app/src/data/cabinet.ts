import { useMutation, useQueryClient } from '@tanstack/react-query';
import { acts, keys } from '@ipsonomo/contract';
import type { CabinetAction, CabinetView } from '@ipsonomo/core/api';
import { ask } from './http';

const CABINET = ['cabinet'];

/**
 * What somebody does at the cabinets, one after the other. A switch that is turned stands there at once: the next turn
 * goes on from it, however long the server takes; what it answers counts once nothing more is under way.
 */
export function useCabinetAct() {
  const client = useQueryClient();
  return useMutation({
    ...{ mutationKey: CABINET, scope: { id: 'cabinet' } },
    mutationFn: (action: CabinetAction) => ask(acts.actAtCabinet, {}, { body: { action } }),
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
