import { LOCALES } from '@clembo/formats/amounts';
import { chooseLocale } from '@clembo/store';
import { z } from 'zod';
import { answer, readBody } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Settings = z.object({ locale: z.enum(LOCALES) });

/** Chooses whose notation numbers and money are written in. */
export const PATCH = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { locale } = await readBody(request, Settings);
    await chooseLocale(store(), await accessOf(), locale);
  });
