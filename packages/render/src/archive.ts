import type { Scene } from '@clembo/scene';
import { type Zippable, zipSync } from 'fflate';
import { zipDate } from './zipDate';
import { type PageFormat, writePages, type WriteOptions } from './write';

/** Writes pages as files of their own, in one archive, in their order. */
export async function archived(
  format: PageFormat,
  pages: { scene: Scene; name: string }[],
  options: WriteOptions,
): Promise<Uint8Array> {
  const files: Zippable = {};
  for (const [k, { scene, name }] of pages.entries()) {
    const own = `${String(k + 1).padStart(2, '0')} ${fileStem(name)}.${format}`;
    files[own] = await writePages(format, [scene], options);
  }
  return zipSync(files, { mtime: zipDate(options.date), level: 6 });
}

/** What of a name every file system takes. */
export const fileStem = (name: string): string =>
  name
    .replace(/[^\p{L}\p{N} ._-]+/gu, '')
    .replace(/^[. ]+|[. ]+$/g, '')
    .slice(0, 150) || 'Page';
