import { LOCALES } from '@clembo/formats/amounts';
import { House } from '@clembo/scene';
import { changeSettings, readSettings } from '@clembo/store';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { answer, readBody } from '@/server/answer';
import { store } from '@/server/store';

const Settings = z.object({
  name: z.string().trim().min(1).max(200).optional(),
  locale: z.enum(LOCALES).optional(),
  commentsForAll: z.boolean().optional(),
  house: House.optional(),
});

/** How the workspace is set. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { house, ...settings } = await readSettings(store(), await accessOf());
    return { ...settings, house: House.parse(house) };
  });

/** Sets how numbers and money are written; an owner also what the workspace is called, and who sees comments. */
export const PATCH = (request: Request): Promise<Response> =>
  answer(request, async () => {
    await changeSettings(store(), await accessOf(), await readBody(request, Settings));
  });
