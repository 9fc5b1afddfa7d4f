import type { Plan } from '@clembo/core';

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** How much a plan holds, in words: groups are no activities, as on pages. */
export function planWords({ activities, links }: Plan): string {
  const parents = new Set(activities.map((a) => a.parent));
  const groups = activities.filter((a) => a.kind === 'summary' || parents.has(a.ref)).length;
  const within = groups === 0 ? '' : ` in ${count(groups, 'group', 'groups')}`;
  return `${count(activities.length - groups, 'activity', 'activities')}${within}, ${count(links.length, 'link', 'links')}`;
}
