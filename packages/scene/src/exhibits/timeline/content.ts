import { firstDayOf, lastDayOf } from '@clembo/core';
import { dateWords } from './itemWords';
import type { PageLanguage } from '../../text/languages/language';
import type { ContentTable } from '../../graph/scene';
import type { Lane } from '../../page/lanes';
import { noteOf } from './body';
import type { Selection } from './select';

/** The same content as a table: what is on the page, lane by lane, by time. */
export function contentRows({ items }: Selection, lanes: readonly Lane[], l: PageLanguage): ContentTable {
  const rows: ContentTable['rows'] = [];
  const read = (list: readonly Lane[], above: string[]) => {
    for (const lane of list) {
      const path = lane.title === '' ? above : [...above, lane.title];
      read(lane.lanes, path);
      for (const i of lane.items) {
        const item = items[i]!;
        const { start, finish } = dateWords(item, 'long', l);
        rows.push({
          ref: item.ref,
          cells: [path.join(' › '), item.name, start, finish, noteOf(item, l)],
          // Words in place of a day are not days.
          values: [
            null,
            null,
            item.said?.start ? null : { day: firstDayOf(item) },
            item.said?.finish ? null : { day: lastDayOf(item) },
            null,
          ],
        });
      }
    }
  };
  read(lanes, []);
  return { heads: [...l.content], named: 1, rows };
}
