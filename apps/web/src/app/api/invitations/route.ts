import { invite, ROLES } from '@clembo/store';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { ownAddress } from '@/server/address';
import { answer, readBody } from '@/server/answer';
import { Email, limitMail } from '@/server/signing';
import { store } from '@/server/store';

const Wanted = z.object({ email: Email, role: z.enum(ROLES), planId: z.uuid().nullable().default(null) });

/** Asks somebody by mail to join the workspace, or one plan of it. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const wanted = await readBody(request, Wanted);
    const access = await accessOf();
    await limitMail(`invite ${wanted.email}`);
    await invite(store(), access, wanted, `${ownAddress()}/invited/`);
  });
