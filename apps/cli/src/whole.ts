import { type Plan, schedulePlan, type WholeEdition, type WholePlan } from '@clembo/core';
import { type ColumnMap, groupProblems, packTables, type Problem, type Table } from '@clembo/formats';
import { EXHIBITS } from '@clembo/scene';

/** An edition as it is put into a file. */
export const editionOf = (
  id: string,
  name: string,
  plan: Plan,
  createdAt: number,
  said: Partial<WholeEdition> = {},
): WholeEdition => ({ id, name, note: '', working: false, baseline: false, createdAt, plan, rows: {}, ...said });

/** A plan as it is put into one file, with what it promised and a first page. */
export function wholeOf(
  plan: Plan,
  promised: { name: string; plan: Plan } | null,
  name: string,
  now: number,
): WholePlan {
  const brief = EXHIBITS.timeline.suggest(plan, schedulePlan(plan), promised ? 1 : 0);
  const working = editionOf('working', name, plan, now, { working: true });
  const kept = promised ? [editionOf('promised', promised.name, promised.plan, now - 1, { baseline: true })] : [];
  return {
    editions: [working, ...kept],
    exhibits: [{ name: 'Overview', brief: { ...brief } }],
    folios: [],
    sources: [],
    models: [],
  };
}

/** A table as a source of a plan. */
export const sourceOf = (
  table: Table,
  map: ColumnMap,
  problems: readonly Problem[],
  said: { no: number; reading: number; createdAt: number; aliases?: Record<string, string> },
): WholePlan['sources'][number] => ({
  aliases: {},
  person: null,
  ...said,
  name: table.source,
  sheet: table.sheet,
  map,
  problems: groupProblems(problems),
  content: packTables([table]),
});
