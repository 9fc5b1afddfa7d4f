import { assessSchedule, checkPlan, schedulePlan } from '@clembo/core';
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
    const value =
      p.value === null
        ? 'nothing to measure'
        : p.base === 1 || p.kind === 'atLeast'
          ? p.value.toFixed(2)
          : `${(p.value * 100).toFixed(1)} %`;
    return `  ${p.passes ? 'passes' : 'fails '}  ${p.name.padEnd(28)}${String(p.count).padStart(6)} of ${String(p.base).padEnd(6)}${value}\n`;
  });
  return `${findingLines(findings)}\n14-point assessment\n${points.join('')}`;
}
