import { placeWords } from '@clembo/core';
import type { Scene } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import { clashWords, namesOf } from './clashes';
import type { LineSelection } from './select';

/** What a page of a line says, as a table. */
export function content(selection: LineSelection): Scene['content'] {
  const { line, flows, blocks, points, clashes } = selection;
  const unit = line?.unit ?? '';
  const place = (p: number) => placeWords(Math.round(p * 1000), unit);
  const day = (d: number) => formatDay(d, 'long');
  const byRef = new Map<string, string[]>();
  const nameOf = namesOf(selection);
  for (const c of clashes)
    for (const ref of c.refs) {
      const words = clashWords(c, line, nameOf);
      const own = byRef.get(ref);
      if (own) own.push(words);
      else byRef.set(ref, [words]);
    }
  const clashing = (ref: string) => byRef.get(ref) ?? [];
  const row = (
    o: { ref: string; name: string; start: number; finish: number; critical: boolean },
    from: string,
    to: string,
    rate: number | null,
  ) => ({
    ref: o.ref,
    cells: [
      o.name,
      from,
      to,
      day(o.start),
      day(o.finish),
      rate === null ? '' : String(Math.round(rate * 100) / 100),
      [o.critical ? 'critical' : '', ...clashing(o.ref)].filter(Boolean).join('; '),
    ],
    values: [null, null, null, { day: o.start }, { day: o.finish }, rate === null ? null : { number: rate }, null],
  });
  return {
    heads: ['Name', 'From', 'To', 'Start', 'Finish', unit === '' ? 'A day' : `${unit} a day`, 'Notes'],
    named: 0,
    rows: [
      ...flows.map((f) => row(f, place(f.points[0]!.place), place(f.points.at(-1)!.place), f.rate)),
      ...blocks.map((b) => row(b, place(b.block.from), place(b.block.to), null)),
      ...points.map((p) => row(p, place(p.place), place(p.place), null)),
    ],
  };
}
