import type { Brief } from '../brief/kinds';
import { Folio } from './folio';

/** An exhibit that a folio may show. */
export interface Offered {
  id: string;
  name: string;
  brief: Brief;
}

/** What a ready-made folio holds: sections, each with the kinds of exhibits that it asks for. */
interface Ready {
  name: string;
  about: string;
  sections: { title: string; kinds: Brief['kind'][]; most: number }[];
}

const READY: Ready[] = [
  {
    name: 'Weekly report',
    about: 'Where the plan stands, what slipped, what is next',
    sections: [
      { title: 'Where it stands', kinds: ['timeline', 'snapshot'], most: 2 },
      { title: 'What has moved', kinds: ['slips', 'bars', 'trend'], most: 3 },
      { title: 'Amounts', kinds: ['curves', 'amounts', 'months'], most: 2 },
      { title: 'On site', kinds: ['build', 'linear'], most: 2 },
    ],
  },
  {
    name: 'Steering board',
    about: 'One page of the whole, gates, cost and what decides',
    sections: [
      { title: 'The whole', kinds: ['timeline'], most: 1 },
      { title: 'Gates and trend', kinds: ['trend', 'slips'], most: 2 },
      { title: 'Cost and effort', kinds: ['curves', 'amounts'], most: 2 },
      { title: 'What decides', kinds: ['network', 'handoffs'], most: 1 },
    ],
  },
  {
    name: 'Client pages',
    about: 'What the client sees: the timeline and the model',
    sections: [
      { title: '', kinds: ['timeline'], most: 2 },
      { title: 'What stands', kinds: ['build'], most: 2 },
    ],
  },
  {
    name: 'Site noticeboard',
    about: 'What goes on where, for those who work there',
    sections: [
      { title: 'The work', kinds: ['linear', 'timeline'], most: 2 },
      { title: 'The model', kinds: ['build'], most: 1 },
      { title: 'Who hands over', kinds: ['handoffs', 'network'], most: 1 },
    ],
  },
];

/** Ready-made folios of the exhibits that a plan has; those for which it has fewer than two are not offered. */
export function readyFolios(exhibits: readonly Offered[], plan: string): { about: string; folio: Folio }[] {
  return READY.flatMap(({ name, about, sections }) => {
    const taken = new Set<string>();
    const pages = sections.flatMap(({ title, kinds, most }) => {
      const own = kinds
        .flatMap((kind) => exhibits.filter((e) => e.brief.kind === kind && !taken.has(e.id)))
        .slice(0, most);
      for (const e of own) taken.add(e.id);
      return own.map((e, k) => ({ id: `page ${e.id}`, exhibit: e.id, section: k === 0 ? title : '' }));
    });
    return pages.length < 2 ? [] : [{ about, folio: Folio.parse({ name: `${name}: ${plan}`.slice(0, 200), pages }) }];
  });
}
