import { writePlanFile } from '@ipsonomo/core/formats';
import { docOfPlan } from '@ipsonomo/core/plan';
import { fileName, type Format } from '../../format';

/** The plan whole, with its papers, whatever part of the job is meant: a part of a plan is another plan. */
export const planJson: Format = {
  id: 'plan',
  write: (material) => {
    const { job, plan, papers } = material;
    const content = writePlanFile({
      name: job,
      doc: docOfPlan(plan),
      ...(papers ? { papers } : {}),
    });
    return { files: [{ name: fileName(material, 'plan', '.json'), content }], left: [] };
  },
};
