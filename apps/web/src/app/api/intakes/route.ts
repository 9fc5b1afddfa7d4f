import { MAX_FILE_BYTES, PASTED } from '@clembo/formats';
import { createIntake, type IntakeFile } from '@clembo/store';
import { z } from 'zod';
import { answer, BadRequest, readBody, readId } from '@/server/answer';
import { readUpload } from '@/server/upload';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** What else stands in a form beside the file. */
const FORM_BYTES = 65_536;
const MOST = MAX_FILE_BYTES + FORM_BYTES;
const Pasted = z.object({ text: z.string().min(1).max(MAX_FILE_BYTES), plan: z.uuid().optional() });
/** So many files are taken in together. */
const MOST_FILES = 50;

interface Uploaded {
  files: IntakeFile[];
  plan: string | null;
}

/**
 * Takes in uploaded files (a form with one or more `file`) or a pasted table (JSON with `text`): a job reads them. With
 * `plan`, they are to refresh that plan.
 */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    // Nobody sends large files here who may not be here at all.
    await accessOf();
    const type = request.headers.get('content-type') ?? '';
    const what = type.startsWith('multipart/form-data') ? await uploaded(request, type) : await pasted(request);
    return createIntake(
      store(),
      await accessOf(what.plan === null ? undefined : { plan: what.plan }),
      what.files,
      what.plan,
    );
  });

async function pasted(request: Request): Promise<Uploaded> {
  const { text, plan } = await readBody(request, Pasted, MOST);
  if (text.trim() === '') throw new BadRequest('The pasted table has no rows.', 422);
  return { files: [{ name: PASTED, content: new TextEncoder().encode(text) }], plan: plan ?? null };
}

async function uploaded(request: Request, type: string): Promise<Uploaded> {
  const { files, form } = await readUpload(request, type, MOST);
  if (files.length > MOST_FILES)
    throw new BadRequest(`There are ${files.length} files; at most ${MOST_FILES} are taken in together.`);
  const plan = form.get('plan');
  return { files, plan: typeof plan === 'string' ? readId(plan, 'plan') : null };
}
