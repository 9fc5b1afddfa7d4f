import { dateWords } from './labels';
import type { ContentRow } from '../../graph/scene';
import type { Lane } from '../../page/lanes';
import { noteOf } from './body';
import type { Selection } from './select';

/** The same content as a table: what is on the page, lane by lane, by time. */
export function contentRows({ items }: Selection, lanes: readonly Lane[]): ContentRow[] {
  const rows: ContentRow[] = [];
  const read = (list: readonly Lane[], above: string[]) => {
    for (const lane of list) {
      const path = lane.title === '' ? above : [...above, lane.title];
      read(lane.lanes, path);
      for (const i of lane.items) {
        const item = items[i]!;
        rows.push({
          ref: item.ref,
          name: item.name,
          lane: path.join(' › '),
          ...dateWords(item, 'long'),
          note: noteOf(item),
        });
      }
    }
  };
  read(lanes, []);
  return rows;
}
