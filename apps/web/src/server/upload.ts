import 'server-only';
import { BadRequest, readBytes } from './answer';

/** Files of a form that was sent, and the form for what else stands in it. */
export async function readUpload(
  request: Request,
  type: string,
  most: number,
): Promise<{ files: { name: string; content: Uint8Array }[]; form: FormData }> {
  const bytes = await readBytes(request, most, 'The file');
  let form: FormData;
  try {
    form = await new Response(bytes as BodyInit, { headers: { 'Content-Type': type } }).formData();
  } catch {
    throw new BadRequest('The upload did not arrive whole. Try again.');
  }
  const files = form.getAll('file').filter((f) => f instanceof File);
  if (files.length === 0) throw new BadRequest('There is no file in the request.');
  return {
    files: await Promise.all(
      files.map(async (f) => ({ name: fileName(f.name), content: new Uint8Array(await f.arrayBuffer()) })),
    ),
    form,
  };
}

/** A file name as it can be shown and kept: without control characters and halves of characters. */
const fileName = (name: string): string =>
  [...name]
    .slice(0, 200)
    .join('')
    .replace(/[\p{Cc}\p{Cs}]+/gu, ' ')
    .trim() || 'file';
