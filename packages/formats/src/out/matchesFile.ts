import { type BuildElement, identifierOf, isoDate, modelOf, type Plan, type Schedule, shownDays } from '@clembo/core';
import { writeCsv } from '../csv/write';

const COLUMNS = [
  'Activity',
  'Activity name',
  'Start',
  'Finish',
  'Effect',
  'Model',
  'Identifier',
  'Element',
  'Class',
  'Type',
  'Storey',
] as const;

/**
 * Who builds, removes or needs which element, a row for each, as CSV (RFC 4180). Matches of elements that no model has
 * (any more) stand there with their identifier alone.
 */
export function writeMatchesCsv(plan: Plan, s: Schedule, elements: readonly BuildElement[]): string {
  const known = new Map(elements.map((e) => [e.ref, e]));
  const rows = plan.matches.flatMap((m) => {
    const i = s.outline.indexOf.get(m.activity);
    const shown = i === undefined ? null : shownDays(s, i);
    return m.elements.map((ref) => {
      const e = known.get(ref);
      return {
        Activity: m.activity,
        'Activity name': i === undefined ? '' : plan.activities[i]!.name,
        Start: shown ? isoDate(shown.first) : '',
        Finish: shown ? isoDate(shown.last) : '',
        Effect: m.effect,
        Model: modelOf(ref),
        Identifier: identifierOf(ref),
        Element: e?.name ?? '',
        Class: e?.class ?? '',
        Type: e?.type ?? '',
        Storey: e?.storey ?? '',
      };
    });
  });
  return `\ufeff${writeCsv(COLUMNS, rows)}`;
}
