import { changeRole, removeMember, ROLES } from '@clembo/store';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { answer, notFound, readBody } from '@/server/answer';
import { store } from '@/server/store';

type Context = { params: Promise<{ account: string }> };

const Change = z.union([
  z.object({ planId: z.uuid(), role: z.enum(ROLES).nullable() }).strict(),
  z.object({ role: z.enum(ROLES).nullable() }).strict(),
]);

/** Lets somebody do more or less: in the workspace, or with one plan. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const change = await readBody(request, Change);
    if (!(await changeRole(store(), await accessOf(), (await params).account, change))) throw notFound('member');
  });

/** Ends that somebody belongs to the workspace. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (!(await removeMember(store(), await accessOf(), (await params).account))) throw notFound('member');
  });
