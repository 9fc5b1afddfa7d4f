import type { Activity } from '../../plan/schema';
import type { ActivityPart, Command } from '../command';
import { type Kind, type Of, placeOf, theActivity, theField, type Thing } from '../kind';
import { CommandRefused } from '../refused';

/** What has to be there for what an activity says. Calendars and resources stand in lists that are set as a whole. */
const named = ({ parent, codes }: ActivityPart): Thing[] => [
  ...(parent ? [theActivity(parent)] : []),
  ...Object.keys(codes ?? {}).map((id) => theField(id)),
];

const PART_WORDS: Partial<Record<string, string>> = {
  name: 'Rename',
  parent: 'Move in the outline',
  start: 'Move',
  finish: 'Move',
  duration: 'Change the length of',
  percent: 'Report progress of',
  actualStart: 'Report progress of',
  actualFinish: 'Report progress of',
};

export const changeActivity: Kind<Of<'changeActivity'>> = {
  apply: ({ activities, touched }, { ref, part }) => {
    const was = activities.get(ref);
    activities.put({ ...was, ...part });
    touched.add(ref);
    const before = Object.fromEntries(Object.keys(part).map((key) => [key, was[key as keyof Activity]]));
    return { do: 'changeActivity', ref, part: before };
  },
  writes: ({ ref, part }) => Object.keys(part).map((field) => theActivity(ref, field)),
  relies: ({ ref, part }) => [theActivity(ref), ...named(part)],
  words: ({ ref, part }) => `${PART_WORDS[Object.keys(part)[0] ?? ''] ?? 'Change'} ${ref}`,
};

export const addActivity: Kind<Of<'addActivity'>> = {
  apply: ({ activities, touched }, { activity, before }) => {
    if (activities.has(activity.ref))
      throw new CommandRefused(
        `There is an activity ${activity.ref} in the plan already; references are never used twice.`,
      );
    activities.insert(activity, before);
    touched.add(activity.ref);
    return { do: 'removeActivity', ref: activity.ref };
  },
  writes: ({ activity }) => [theActivity(activity.ref)],
  relies: ({ activity, before }) => [...named(activity), ...placeOf('activity', before)],
  words: ({ activity }) => `Add ${activity.name || activity.ref}`,
};

export const removeActivity: Kind<Of<'removeActivity'>> = {
  apply: (draft, { ref }) => {
    const { activities } = draft;
    const gone = activities.get(ref);
    const before = activities.behind(ref);
    const held = activities.heldBy(ref);
    for (const child of held) activities.put({ ...activities.get(child), parent: gone.parent });
    const links = draft.links.removeOf(ref);
    const matches = draft.matches.removeOf(ref);
    activities.remove(ref);
    draft.touch(ref, ...held, ...links.flatMap(({ link }) => [link.from, link.to]));
    return {
      do: 'all',
      commands: [
        { do: 'addActivity', activity: gone, before },
        ...held.map((child): Command => ({ do: 'changeActivity', ref: child, part: { parent: ref } })),
        ...links.map(({ link, at }): Command => ({ do: 'addLink', link, at })),
        ...matches.map((match): Command => ({ do: 'matchElements', match })),
      ],
    };
  },
  writes: ({ ref }) => [theActivity(ref)],
  relies: () => [],
  words: ({ ref }) => `Remove ${ref}`,
};

export const moveActivity: Kind<Of<'moveActivity'>> = {
  apply: ({ activities, touched }, { ref, before }) => {
    const was = before === ref ? ref : activities.behind(ref);
    activities.move(ref, before);
    touched.add(ref);
    return { do: 'moveActivity', ref, before: was };
  },
  writes: ({ ref }) => [theActivity(ref, 'place')],
  relies: ({ before }) => placeOf('activity', before),
  words: ({ ref }) => `Move ${ref} in the list`,
};
