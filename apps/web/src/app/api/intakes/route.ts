import { MAX_FILE_BYTES } from '@clembo/formats';
import { z } from 'zod';
import { answer, BadRequest, readBody } from '@/server/answer';
import { takeIn, takeInText } from '@/server/intake/takeIn';
import { accessOf } from '@/server/store';

const Pasted = z.object({ text: z.string().min(1).max(MAX_FILE_BYTES) });

/** Takes in an uploaded file (a form with `file`) or a pasted table (JSON with `text`). */
export const POST = (request: Request): Promise<Response> =>
  answer(async () => {
    if (!(request.headers.get('content-type') ?? '').startsWith('multipart/form-data')) {
      return takeInText(await accessOf(), (await readBody(request, Pasted)).text);
    }
    let form: FormData;
    try {
      form = await request.formData();
    } catch {
      throw new BadRequest('The upload did not arrive whole. Try again.');
    }
    const file = form.get('file');
    if (!(file instanceof File)) throw new BadRequest('There is no file in the request.');
    if (file.size > MAX_FILE_BYTES)
      throw new BadRequest(
        `${file.name} has ${Math.ceil(file.size / 1048576)} MB; at most ${MAX_FILE_BYTES / 1048576} MB can be taken in.`,
        413,
      );
    return takeIn(await accessOf(), new Uint8Array(await file.arrayBuffer()), file.name.slice(0, 200) || 'file');
  });
