import { DEED_KINDS, listDeeds } from '@clembo/store';
import Papa from 'papaparse';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { answer } from '@/server/answer';
import { store } from '@/server/store';

const Wanted = z.object({
  about: z.enum(DEED_KINDS).optional(),
  words: z.string().max(200).optional(),
  before: z.coerce.number().int().optional(),
  form: z.enum(['json', 'csv']).default('json'),
});

/** All of it, as far as a table of it is of use. */
const MOST = 20_000;

/** Who did what in the workspace, the latest first; with `form=csv` all of it as a table. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { form, ...wanted } = Wanted.parse(Object.fromEntries(new URL(request.url).searchParams));
    const access = await accessOf();
    if (form === 'json') return { deeds: await listDeeds(store(), access, wanted) };
    const deeds = await listDeeds(store(), access, { ...wanted, most: MOST });
    const rows = deeds.map((d) => [d.at.toISOString(), d.person ?? '', d.about, d.words]);
    // What begins like a formula is no formula.
    const csv = Papa.unparse({ fields: ['When', 'Who', 'About', 'What'], data: rows }, { escapeFormulae: true });
    return new Response(`\ufeff${csv}\r\n`, {
      headers: {
        'Content-Type': 'text/csv; charset=utf-8',
        'Content-Disposition': 'attachment; filename="history.csv"',
      },
    });
  });
