import { assessSchedule, checkPlan, pointWords, schedulePlan } from '@clembo/core';
import { findingLines, findingRows, json } from '../findings';
import type { Loaded } from '../load';

/** Everything that a planner should know about the data, and the 14-point assessment. */
export function checkCommand(loaded: Loaded, baseline: Loaded | null, asJson: boolean): string {
  const { plan } = loaded;
  const s = schedulePlan(plan);
  const findings = findingRows(loaded, checkPlan(plan, s));
  const assessment = assessSchedule(plan, s, baseline?.plan ?? null);
  if (asJson) return json({ findings, assessment });
  const points = assessment.map((p) => {
    const passes = p.value === null ? '–' : p.passes ? 'passes' : 'fails';
    return `  ${passes.padEnd(8)}${p.name.padEnd(28)}${String(p.count).padStart(6)} of ${String(p.base).padEnd(6)}${pointWords(p)}\n`;
  });
  return `${findingLines(findings)}\n14-point assessment\n${points.join('')}`;
}
