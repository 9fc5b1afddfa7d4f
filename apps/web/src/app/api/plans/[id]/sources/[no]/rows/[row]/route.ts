import { ColumnMap, unpackTables } from '@clembo/formats';
import { readSource } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Number_ = z.coerce.number().int().min(1).max(2_000_000);

/** A row of a source as it stood there, with the headings of its columns. */
export const GET = (
  request: Request,
  { params }: { params: Promise<{ id: string; no: string; row: string }> },
): Promise<Response> =>
  answer(request, async () => {
    const { id, no, row } = await params;
    const source = await readSource(
      store(),
      await accessOf({ plan: (await params).id }),
      readId(id, 'plan'),
      Number_.parse(no),
    );
    const table = source?.content && unpackTables(source.content)[0];
    const cells = table?.rows[Number_.parse(row) - table.firstRow];
    if (!source || !table || !cells) throw notFound('row');
    const map = ColumnMap.safeParse(source.map);
    const headings = map.success ? map.data.headings : [];
    return {
      name: source.name,
      sheet: source.sheet,
      cells: cells.flatMap((text, column) =>
        text.trim() === '' ? [] : [{ column, heading: headings[column] ?? '', text: text.trim().slice(0, 500) }],
      ),
    };
  });
