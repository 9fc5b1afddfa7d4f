import { type Condition, dayOf, isoDate, monthStart, type Status, type Test } from '@clembo/core';
import { type Brief, defaultBrief } from '@clembo/scene/brief';
import type { Measuring } from '@/workers/answers/measure';

/** What of the standing can be made a page of. */
export type Chart = 'slips' | 'curves' | 'amounts' | 'status' | 'coming' | 'payments' | 'need' | 'snapshot' | 'parts';

const one = (field: string, is: Test['is'], ...values: string[]): Test => ({ field, is, values });

const STATUS: Record<Status, string> = {
  complete: 'complete',
  inProgress: 'in progress',
  onHold: 'on hold',
  notStarted: 'not started',
  lateToStart: 'not started',
};

/** All that was chosen and clicked, as one condition. */
export function conditionOf(m: Measuring, statusDate: number): Condition {
  const today = isoDate(dayOf(statusDate));
  const parts: (Test | Condition)[] = m.where.tests.length === 0 ? [] : [m.where];
  if (m.off === 'late') parts.push(one('late', 'above', '0'));
  if (m.off === 'ahead') parts.push(one('late', 'below', '0'));
  if (m.off === 'beyond') parts.push(one('band', 'is', 'to be watched', 'far off'));
  if (m.refs.length > 0) parts.push(one('ref', 'is', ...m.refs));
  if (m.statuses.length > 0)
    parts.push({
      match: 'any',
      tests: m.statuses.map((s): Test | Condition => {
        if (s === 'lateToStart')
          return { match: 'all', tests: [one('status', 'is', STATUS[s]), one('start', 'below', today)] };
        if (s === 'notStarted')
          return { match: 'all', tests: [one('status', 'is', STATUS[s]), one('start', 'atLeast', today)] };
        return one('status', 'is', STATUS[s]);
      }),
    });
  if (m.months.length > 0)
    parts.push({
      match: 'any',
      tests: m.months.map((month) => ({
        match: 'all' as const,
        tests: [one('start', 'below', isoDate(monthStart(month, 1))), one('finish', 'atLeast', isoDate(month))],
      })),
    });
  return { match: 'all', tests: parts };
}

/** The brief of the page that shows a chart of the standing, of what is measured there. */
export function exhibitOf(chart: Chart, m: Measuring, statusDate: number): { name: string; brief: Brief } {
  const common = { where: conditionOf(m, statusDate), compare: m.against };
  const also = (...tests: Test[]): Condition => ({ match: 'all', tests: [...common.where.tests, ...tests] });
  const amount = m.amount === 'effort' ? 'Effort' : 'Cost';
  switch (chart) {
    case 'slips':
      return { name: 'What slipped most', brief: { ...defaultBrief('slips'), ...common } };
    case 'curves':
      return {
        name: `${amount} promised, earned, spent`,
        brief: { ...defaultBrief('curves'), ...common, of: m.amount },
      };
    case 'amounts':
      return { name: `${amount} against budget`, brief: { ...defaultBrief('amounts'), ...common, amount: m.amount } };
    case 'status':
      return { name: 'Activities done', brief: { ...defaultBrief('curves'), ...common, of: 'activities' } };
    case 'coming':
      return {
        name: `The next ${m.weeks} weeks`,
        brief: {
          ...defaultBrief('bars'),
          ...common,
          only: 'open',
          order: 'start',
          where: also(
            one('finish', 'above', isoDate(dayOf(statusDate))),
            one('finish', 'atMost', isoDate(dayOf(statusDate) + 7 * m.weeks)),
          ),
        },
      };
    case 'payments':
      return { name: 'Payments by month', brief: { ...defaultBrief('months'), ...common, of: 'payments' } };
    case 'need':
      return { name: 'People and plant', brief: { ...defaultBrief('months'), ...common } };
    case 'snapshot':
      return { name: 'Snapshot', brief: { ...defaultBrief('snapshot'), ...common } };
    case 'parts':
      return {
        name: 'Snapshot by parts',
        brief: {
          ...defaultBrief('snapshot'),
          ...common,
          by: m.by?.replace(/^code\./, '') ?? null,
          page: 'A3 landscape',
        },
      };
  }
}
