import { dayOf, isComplete, isMilestone, lastDayOf, NONE, type Plan, type Schedule } from '@clembo/core';
import { decisive, groupings, meaning } from './fields';
import { HandoffsBrief } from './handoffs';
import { NetworkBrief } from './network';
import { RESPONSIBLE } from './parts';
import type { Ready } from './ready';

/** More steps than these are shown by groups. */
const MOST_STEPS = 40;
/** So many steps are a short chain. */
const SHORT = 10;
/** So many links for each activity make a network. */
const LEAST_LINKS = 0.5;

/** Ready-made pages of a plan that has links: what leads to what, and who hands over to whom. */
export function readyNetworks(plan: Plan, schedule: Schedule): Ready[] {
  const leaves = schedule.outline.isSummary.filter((x) => !x).length;
  // A network of things without links is a heap.
  if (plan.links.length < leaves * LEAST_LINKS) return [];
  const base = NetworkBrief.parse({ kind: 'network' });
  const fields = groupings(plan, schedule).filter((f) => f.id !== 'outline');
  const who = meaning(fields, 'who') ?? fields[0];
  const named = plan.activities.filter((a) => a.responsible.length > 0).length;
  const hands = named >= leaves / 3 ? RESPONSIBLE : (who?.id ?? null);
  const colour = fields.find((f) => f !== who && f.values <= 8)?.id ?? null;
  const gate = nextGate(plan, schedule);
  const path = new Set(decisive(plan, schedule));
  const critical = plan.links.some((l) => path.has(l.from) && path.has(l.to));
  const outlined = schedule.outline.level.some((l) => l > 1);
  return [
    ...(critical
      ? [
          {
            name: 'The critical path as a network',
            about: 'What decides the finish, one after the other',
            // A short chain is as wide as a slide, and not as high as a sheet.
            brief: {
              ...base,
              only: 'critical' as const,
              colour,
              ...(path.size <= SHORT ? { page: 'wide slide' as const } : {}),
            },
          },
        ]
      : []),
    ...(gate
      ? [
          {
            name: `What leads to ${gate.name}`,
            about: 'The next gate, with all that has to come before it',
            brief: { ...base, around: gate.ref, only: 'open' as const, colour, page: 'A3 landscape' as const },
          },
        ]
      : []),
    ...(hands
      ? [
          {
            name: 'Who hands over to whom',
            about: 'Where work passes from hand to hand, and where it waits longest',
            brief: {
              ...HandoffsBrief.parse({ kind: 'handoffs' }),
              lanes: hands,
              level: outlined && leaves > MOST_STEPS ? 2 : null,
              only: 'open' as const,
              page: 'A2 landscape' as const,
            },
          },
        ]
      : []),
    ...(who
      ? [
          {
            name: `The network by ${who.name.toLowerCase()}`,
            about: 'Who waits for whom',
            brief: {
              ...base,
              lanes: who.id,
              level: outlined && leaves > 40 ? 2 : null,
              colour,
              page: 'A2 landscape' as const,
            },
          },
        ]
      : []),
  ];
}

/** The first milestone to come that something leads to. */
function nextGate(plan: Plan, s: Schedule): { ref: string; name: string } | null {
  const led = new Set(plan.links.map((l) => l.to));
  const today = plan.statusDate === null ? Number.NEGATIVE_INFINITY : dayOf(plan.statusDate);
  let [best, least] = [null as { ref: string; name: string } | null, Number.POSITIVE_INFINITY];
  plan.activities.forEach((a, i) => {
    if (!isMilestone(a.kind) || isComplete(a) || s.start[i] === NONE || !led.has(a.ref)) return;
    const day = lastDayOf({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 });
    if (day >= today && day < least) [best, least] = [{ ref: a.ref, name: a.name || a.ref }, day];
  });
  return best;
}
