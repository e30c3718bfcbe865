import type { FieldPlan, FieldTarget, PlanNews } from './plan';
import { FieldRefusal } from './refusal';

// Of a plan of thousands the wire's thread is told what changed.

/** What is told of a plan to whoever has these targets already. */
export function planNews(plan: FieldPlan, known: readonly FieldTarget[] | undefined): PlanNews {
  // What is the same at the same place, which is nearly all, is not even looked up.
  const before = new Map<string, FieldTarget>();
  known?.forEach((target, at) => {
    if (plan.targets[at] !== target) before.set(target.interfaceId, target);
  });
  const moved = plan.targets.filter((target, at) => known?.[at] !== target);
  const targets = moved.filter((target) => before.get(target.interfaceId) !== target);
  for (const { interfaceId } of moved) before.delete(interfaceId);
  return { ...plan, targets, gone: [...before.keys()], isWhole: known === undefined };
}

/** The plan after what was told of it. @throws FieldRefusal `field.planGone` where nothing is known that it follows on */
export function planAfterNews(known: FieldPlan | undefined, news: PlanNews): FieldPlan {
  const { isWhole, gone, ...plan } = news;
  if (isWhole) return plan;
  if (known?.jobId !== plan.jobId) throw FieldRefusal.of('field.planGone', {});
  const targets = new Map(known.targets.map((target) => [target.interfaceId, target]));
  for (const id of gone) targets.delete(id);
  for (const target of plan.targets) targets.set(target.interfaceId, target);
  return { ...plan, targets: [...targets.values()] };
}
