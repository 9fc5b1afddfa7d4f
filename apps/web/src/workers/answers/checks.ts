import { type AssessmentPoint, assessSchedule, checkPlan, type Plan, wordsFor } from '@clembo/core';
import type { Held } from './held';

/** What the checks say, in words. */
export interface Checks {
  findings: {
    code: string;
    severity: 'error' | 'warning' | 'note';
    refs: string[];
    /** The sentence in parts: every second one is a reference. */
    words: string[];
  }[];
  points: AssessmentPoint[];
  /** The edition that the assessment measures against, or null where the plan has only one. */
  baseline: string | null;
}

/** Stands around references in a sentence, and in no text that a person writes. */
const REF_MARK = '\u0001';

/** Findings about the data, the gravest first, and the 14-point assessment. */
export function checksOf({ plan, schedule }: Held, baseline: { plan: Plan; name: string } | null): Checks {
  const rank = { error: 0, warning: 1, note: 2 };
  const findings = checkPlan(plan, schedule)
    .map((f) => ({
      code: f.code,
      severity: f.severity,
      refs: f.refs,
      words: wordsFor({ ...f, refs: f.refs.map((ref) => REF_MARK + ref + REF_MARK) }).split(REF_MARK),
    }))
    .sort((a, b) => rank[a.severity] - rank[b.severity]);
  return {
    findings,
    points: assessSchedule(plan, schedule, baseline?.plan ?? null),
    baseline: baseline?.name ?? null,
  };
}
