import { listNotices, readNotices } from '@clembo/store';
import { accessOf } from '@/server/access';
import { answer } from '@/server/answer';
import { store } from '@/server/store';

/** What somebody was told of: where they were named or answered. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => ({ notices: await listNotices(store(), await accessOf()) }));

/** All of it has been read. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => readNotices(store(), await accessOf()));
