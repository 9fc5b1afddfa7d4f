import { ColumnMap } from '@clembo/formats';
import { z } from 'zod';
import { answer, readBody, readId } from '@/server/answer';
import { correctIntake, viewIntake } from '@/server/intake/view';
import { accessOf } from '@/server/store';

type Context = { params: Promise<{ id: string }> };
const Correction = z.object({ sheet: z.string().optional(), map: ColumnMap.optional() });

export const GET = (_: Request, { params }: Context): Promise<Response> =>
  answer(async () => viewIntake(await accessOf(), readId((await params).id, 'intake')));

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(async () =>
    correctIntake(await accessOf(), readId((await params).id, 'intake'), await readBody(request, Correction)),
  );
