import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Access } from './access';
import { exhibit, intake, plan } from './schema';

/** Plans that an access is about, which are not put away; the query joins the plan. */
export const ownPlans = ({ workspace, only }: Access) =>
  and(
    eq(plan.workspaceId, workspace),
    isNull(plan.deletedAt),
    only && (only.length === 0 ? sql`false` : inArray(plan.id, [...only])),
  );

/** A plan that an access is about, which is not put away. */
export const ownPlan = (access: Access, planId: string) => and(eq(plan.id, planId), ownPlans(access));

/** An exhibit of such a plan; the query joins the plan. */
export const ownExhibit = (access: Access, id: string) =>
  and(eq(exhibit.id, id), isNull(exhibit.deletedAt), ownPlans(access));

/** Intakes that an access is about: of one limited to plans only those that refresh one of them. */
export const ownIntakes = ({ workspace, only }: Access) =>
  and(
    eq(intake.workspaceId, workspace),
    only && (only.length === 0 ? sql`false` : inArray(intake.targetPlan, [...only])),
  );

export const ownIntake = (access: Access, id: string) => and(eq(intake.id, id), ownIntakes(access));

/** What is put away can be brought back for so many days. */
const KEPT_AWAY_DAYS = 7;
export const longAway = (): Date => new Date(Date.now() - KEPT_AWAY_DAYS * 86_400_000);
