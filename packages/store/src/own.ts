import { and, eq, isNull } from 'drizzle-orm';
import type { Access } from './access';
import { exhibit, plan } from './schema';

/** A plan of the workspace that asks, which is not put away. */
export const ownPlan = (access: Access, planId: string) =>
  and(eq(plan.id, planId), eq(plan.workspaceId, access.workspace), isNull(plan.deletedAt));

/** An exhibit of such a plan; the query joins the plan. */
export const ownExhibit = (access: Access, id: string) =>
  and(eq(exhibit.id, id), isNull(exhibit.deletedAt), eq(plan.workspaceId, access.workspace), isNull(plan.deletedAt));

/** What is put away can be brought back for so many days. */
const KEPT_AWAY_DAYS = 7;
export const longAway = (): Date => new Date(Date.now() - KEPT_AWAY_DAYS * 86_400_000);
