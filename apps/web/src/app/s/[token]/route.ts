import { answerShared, openByPassword } from '@/server/shared';

type Context = { params: Promise<{ token: string }> };

/** A page that is shared, for whoever has its address. */
export const GET = async (request: Request, { params }: Context): Promise<Response> =>
  answerShared(request, (await params).token);

/** Its password, sent by the form that asks for it. */
export const POST = async (request: Request, { params }: Context): Promise<Response> =>
  openByPassword(request, (await params).token);
