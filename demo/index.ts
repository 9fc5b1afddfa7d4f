import type { Plan } from '../packages/core/src/index';
import { museum } from './museum';
import { saltmere } from './saltmere';

/** A made-up plan as it stands, with the edition that was promised. */
export interface DemoPlan {
  key: string;
  current: Plan;
  currentEdition: string;
  baseline: Plan;
  baselineEdition: string;
}

/** The made-up plans that the application starts with. */
export function demoPlans(): DemoPlan[] {
  return [
    {
      key: 'saltmere-sea-wall',
      current: saltmere().current('2026-01-12', '2026-09-14'),
      currentEdition: 'Edition of 14 September 2026',
      baseline: saltmere().promised('2026-01-12'),
      baselineEdition: 'Contract baseline of 12 January 2026',
    },
    {
      key: 'museum-move',
      current: museum().current('2026-02-02', '2026-10-05'),
      currentEdition: 'Edition of 5 October 2026',
      baseline: museum().promised('2026-02-02'),
      baselineEdition: 'Programme agreed on 2 February 2026',
    },
  ];
}
