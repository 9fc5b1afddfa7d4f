import type { StageName } from './stages';

/** A screen of a stage: its path below the plan, its title, and other words by which people look for it. */
export type PlanScreen = readonly [path: string, title: string, also: string];

/** The screens of each stage of a plan, the first one first. Tabs and the search come from here. */
export const SCREENS = {
  Gather: [
    ['gather', 'Sources and editions', 'baseline promise refresh compare export backup take in take out file'],
    ['gather/books', 'Code books', 'codes fields values colours'],
    ['gather/work', 'Clean up', 'mend findings worklist'],
    ['sketch', 'Sketch', 'draw'],
  ],
  Structure: [
    ['structure', 'Ledger', 'rows activities table links compute dates history checks'],
    ['structure/calendars', 'Calendars', 'holidays working days shifts'],
    ['structure/resources', 'Resources', 'people crews needs effort'],
    ['structure/lines', 'Lines', 'places chainage floors zones locations'],
    ['structure/model', 'Model', '4d elements matching'],
  ],
  Measure: [
    ['measure', 'Standing', 'status date variance late progress'],
    ['measure/week', 'Weekly round', 'report progress status date of status'],
    ['measure/editions', 'Over the editions', 'trend'],
    ['measure/tolerance', 'Tolerance and units', 'bounds late'],
  ],
  Show: [['show', 'All pages', 'exhibits sheet timeline']],
  Share: [['share', 'Folios and shared pages', 'page addresses weekly run mail']],
} as const satisfies Record<StageName, readonly PlanScreen[]>;

/** A screen with the stage that it belongs to. */
export interface FoundScreen {
  stage: string;
  path: string;
  title: string;
  also: string;
}

const ALL: FoundScreen[] = Object.entries<readonly PlanScreen[]>(SCREENS).flatMap(([stage, list]) =>
  list.map(([path, title, also]) => ({ stage, path, title, also })),
);

/** The screens that a text asks for, by their titles and by their subjects; none for no text. */
export function screensMeant(text: string): { titled: FoundScreen[]; about: FoundScreen[] } {
  const wanted = text.trim().toLowerCase();
  const meant = (words: string) => wanted !== '' && words.toLowerCase().includes(wanted);
  const titled = ALL.filter((s) => meant(s.title));
  const about = ALL.filter((s) => !meant(s.title) && meant(s.also));
  return { titled, about };
}
