import type { Scene } from '../graph/scene';
import { NOTHING_SHOWN } from '../graph/shown';

/** The fit of a page that leads to others (a cover, an overview): it has nothing to leave out. `size` in points. */
export const frontFit = (size: number, rows: number): Scene['fit'] => ({
  smallestType: size,
  leastType: 6.5,
  rows,
  counts: NOTHING_SHOWN,
  labelsShortened: 0,
  labelsInKey: 0,
  datesWithoutRoom: 0,
  laneTitlesCut: 0,
  periodsWithoutName: 0,
  charactersMissing: 0,
  readable: true,
  advice: [],
});
