import 'server-only';
import { isUtf8 } from 'node:buffer';
import { fileTypeFromBuffer } from 'file-type';
import { BadRequest } from './answer';

/** What may stand beside a comment: what people look at and read, and nothing that runs. */
const ALLOWED = new Set([
  'image/png',
  'image/jpeg',
  'image/gif',
  'image/webp',
  'application/pdf',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  'application/vnd.oasis.opendocument.text',
  'application/vnd.oasis.opendocument.spreadsheet',
]);
const TEXT = /\.(txt|csv|md|log|ics)$/i;

/**
 * What a file is, by what is in it: a name says nothing.
 *
 * @throws BadRequest for what may not stand beside a comment
 */
export async function typeOfAttached(name: string, content: Uint8Array): Promise<string> {
  const found = await fileTypeFromBuffer(content);
  if (found && ALLOWED.has(found.mime)) return found.mime;
  const isText = !found && TEXT.test(name) && content.length > 0 && isUtf8(content) && !content.includes(0);
  if (isText) return 'text/plain; charset=utf-8';
  throw new BadRequest(
    `“${name}” is ${found ? `a file of the kind ${found.mime}` : 'no file of a known kind'}. Pictures (PNG, JPEG, GIF, WebP), PDF, documents, tables, slides and plain text can stand beside a comment.`,
    415,
  );
}
