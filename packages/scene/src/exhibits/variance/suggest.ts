import type { Plan } from '@clembo/core';
import type { Brief } from '../../brief/kinds';

/** A first brief of a kind: on the page that what it shows needs, with the amount that was promised. */
export function suggestFor<B extends Brief>(plan: Plan, brief: B): B {
  const { kind } = brief;
  const effort = plan.activities.some((a) => (a.effort ?? 0) > 0);
  const cost = plan.activities.some((a) => (a.cost ?? 0) > 0);
  const useful = plan.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 12);
  const part = (): Partial<Brief> => {
    switch (kind) {
      case 'bars':
        return {
          page: plan.activities.length > 30 ? 'A3 portrait' : 'A4 landscape',
          only: plan.activities.length > 60 ? 'off' : 'all',
        };
      case 'amounts':
        return { amount: effort || !cost ? 'effort' : 'cost' };
      case 'curves':
        return { of: effort ? 'effort' : cost ? 'cost' : 'activities' };
      case 'snapshot':
        return { by: useful?.id ?? null };
      default:
        return {};
    }
  };
  return { ...brief, ...part() } as B;
}
