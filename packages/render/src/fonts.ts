import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { FontMetrics } from '@clembo/scene';

/** Where the font files of pages lie; tools/make-fonts.mjs makes them. */
export interface FontFolder {
  path(file: string): string;
  /** All files as base64, by name, for outputs that carry their fonts. */
  embedded(): Map<string, string>;
}

/** The fonts of pages in a folder; files are read when first asked for. */
export function fontFolder(folder: string, fonts: FontMetrics): FontFolder {
  let read: Map<string, string> | null = null;
  const path = (file: string) => join(folder, file);
  return {
    path,
    embedded: () => {
      read ??= new Map(Object.values(fonts).map((f) => [f.file, readFileSync(path(f.file)).toString('base64')]));
      return read;
    },
  };
}
