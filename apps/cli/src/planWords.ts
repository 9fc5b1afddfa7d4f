import { countWords, type Plan } from '@clembo/core';

/** How much a plan holds, in words: groups are no activities, as on pages. */
export function planWords({ activities, links }: Plan): string {
  const parents = new Set(activities.map((a) => a.parent));
  const groups = activities.filter((a) => a.kind === 'summary' || parents.has(a.ref)).length;
  const within = groups === 0 ? '' : ` in ${countWords(groups, 'group', 'groups')}`;
  return `${countWords(activities.length - groups, 'activity', 'activities')}${within}, ${countWords(links.length, 'link', 'links')}`;
}
