import type { MistakeWish } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import type { SiteDefinition } from '../site';
import { withMistakes } from './mistakes';
import { siteOfPlan } from './site-of-plan';

/** A plan that is rehearsed, and how: what a site is made of. */
export interface RehearsedPlan {
  readonly plan: Plan;
  readonly seed: number;
  readonly wish: MistakeWish;
  /** Mistakes that were found already, and put right. */
  readonly found: readonly string[];
}

export const rehearsedSite = ({ plan, seed, wish }: RehearsedPlan): SiteDefinition =>
  withMistakes(plan, siteOfPlan(plan, seed), wish, seed).site;
