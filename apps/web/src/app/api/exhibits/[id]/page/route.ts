import { z } from 'zod';
import { answer, readId } from '@/server/answer';
import { PAGE_FORMATS, writeExhibit } from '@/server/page';
import { accessOf } from '@/server/store';

/** The exhibit as a file: `?format=pdf`, `svg` or `png`. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(async () => {
    const format = z.enum(PAGE_FORMATS).parse(new URL(request.url).searchParams.get('format'));
    const { bytes, type, file } = await writeExhibit(await accessOf(), readId((await params).id, 'exhibit'), format);
    return new Response(bytes as BodyInit, {
      headers: {
        'Content-Type': type,
        'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}`,
        'Cache-Control': 'no-store',
      },
    });
  });
