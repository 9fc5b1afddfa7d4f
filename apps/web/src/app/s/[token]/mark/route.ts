import { answerMark } from '@/server/shared';

/** What changes when the page does. */
export const GET = async (request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> =>
  answerMark(request, (await params).token);
