import type { TimelineBrief } from '../../brief/timeline';
import { pageFrame } from '../../page/frame';
import { BAR } from './cells';
import { BLANK, type Label } from './labels';
import type { Selection } from './select';

/** How often the height of the page has to be needed before nothing is tried: far from any doubt. */
const BEYOND = 1.5;
/** With fewer things, trying costs nothing. */
const FEW = 2000;

/**
 * True where so much happens at the same time that no page could hold it, however low its rows: what overlaps in time
 * stands in rows of its own, in whichever lane. Such a page says that it cannot be read, and its labels need not be
 * measured to know it.
 */
export function isHopeless({ items }: Selection, brief: TimelineBrief): boolean {
  if (items.length < FEW) return false;
  const { height, leastType } = pageFrame(brief.page, 1, brief.size);
  const rows = brief.rows === 'each' ? items.length : mostAtOnce(items);
  return rows * leastType * BAR.low > BEYOND * height;
}

/** How many bars overlap at the busiest moment. */
function mostAtOnce(items: Selection['items']): number {
  const bars = items.filter((i) => i.form !== 'milestone' && i.stretches === null && i.finish > i.start);
  const starts = Float64Array.from(bars, (i) => i.start).sort();
  const ends = Float64Array.from(bars, (i) => i.finish).sort();
  let [most, ended] = [0, 0];
  for (let k = 0; k < starts.length; k++) {
    while (ends[ended]! <= starts[k]!) ended++;
    most = Math.max(most, k + 1 - ended);
  }
  return most;
}

/** Labels of a page on which none is drawn. */
export const blankLabels = ({ items }: Selection): Label[] => items.map(() => BLANK);
