import type { Plan } from '../packages/core/src/index';
import { museum } from './museum';
import { saltmere } from './saltmere';
import { newStore } from './store';

/** A made-up plan as it stands, with the edition that was promised. */
export interface DemoPlan {
  key: string;
  current: Plan;
  currentEdition: string;
  baseline: Plan;
  baselineEdition: string;
  /** Editions that were kept on the way, the oldest first. */
  earlier: { name: string; plan: Plan }[];
}

/** The made-up plans that the application starts with. */
export function demoPlans(): DemoPlan[] {
  const [wall, move, store] = [saltmere(), museum(), newStore()];
  const current = wall.current('2026-01-12', '2026-09-14');
  const moved = move.current('2026-02-02', '2026-10-05');
  return [
    {
      key: 'saltmere-sea-wall',
      current,
      currentEdition: 'Edition of 14 September 2026',
      baseline: wall.promised('2026-01-12'),
      baselineEdition: 'Contract baseline of 12 January 2026',
      earlier: [
        { name: 'Edition of 13 April 2026', plan: wall.earlier('2026-01-12', '2026-04-13', current) },
        { name: 'Edition of 15 June 2026', plan: wall.earlier('2026-01-12', '2026-06-15', current) },
        { name: 'Edition of 10 August 2026', plan: wall.earlier('2026-01-12', '2026-08-10', current) },
        { name: 'Edition of 7 September 2026', plan: wall.earlier('2026-01-12', '2026-09-07', current) },
      ],
    },
    {
      key: 'museum-move',
      current: moved,
      currentEdition: 'Edition of 5 October 2026',
      baseline: move.promised('2026-02-02'),
      baselineEdition: 'Programme agreed on 2 February 2026',
      earlier: [{ name: 'Edition of 28 September 2026', plan: move.earlier('2026-02-02', '2026-09-28', moved) }],
    },
    {
      key: 'museum-store',
      current: store.current('2026-06-01', '2026-07-20'),
      currentEdition: 'Edition of 20 July 2026',
      baseline: store.promised('2026-06-01'),
      baselineEdition: 'Programme agreed on 1 June 2026',
      earlier: [],
    },
  ];
}
