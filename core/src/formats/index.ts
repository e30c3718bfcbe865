export {
  planSchema,
  readPlanFile,
  writePlanFile,
  type PlanFile,
  type PlanPapers,
} from './plan-file';
