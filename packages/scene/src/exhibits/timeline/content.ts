import { dateWords } from './labels';
import type { ContentTable } from '../../graph/scene';
import type { Lane } from '../../page/lanes';
import { noteOf } from './body';
import type { Selection } from './select';

/** The same content as a table: what is on the page, lane by lane, by time. */
export function contentRows({ items }: Selection, lanes: readonly Lane[]): ContentTable {
  const rows: ContentTable['rows'] = [];
  const read = (list: readonly Lane[], above: string[]) => {
    for (const lane of list) {
      const path = lane.title === '' ? above : [...above, lane.title];
      read(lane.lanes, path);
      for (const i of lane.items) {
        const item = items[i]!;
        const { start, finish } = dateWords(item, 'long');
        rows.push({ ref: item.ref, cells: [path.join(' › '), item.name, start, finish, noteOf(item)] });
      }
    }
  };
  read(lanes, []);
  return { heads: ['Lane', 'Name', 'Start', 'Finish', 'Notes'], named: 1, rows };
}
