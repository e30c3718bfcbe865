import type { rehearsalActs } from '@ipsonomo/contract';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const rehearsalHandlers = (services: Services): Handlers<typeof rehearsalActs> => {
  const { rehearsals, planWork, wires, changed } = services;
  return {
    rehearse: async ({ params, body, actor }) => {
      const id = await planWork.rehearse(params.job, body, actor);
      rehearsals.begun(id);
      changed(id);
      return { id };
    },
    readRehearsal: ({ params }) => rehearsals.view(params.job),
    claimMistake: async ({ params, body, actor }) => {
      const mistake = await rehearsals.claim(params.job, body, actor);
      if (mistake !== undefined) wires.at(params.job).putRight(mistake);
      return { isRight: mistake !== undefined };
    },
    endRehearsal: ({ params }) => rehearsals.end(params.job),
  };
};
