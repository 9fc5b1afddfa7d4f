import { mkdir, open, readdir, readFile, realpath, rename, rm, stat } from 'node:fs/promises';
import { join, relative, resolve, sep } from 'node:path';

/** Why a folder or a file in it cannot be used, in words. */
export class FolderTrouble extends Error {}

/** A file that was found, and how to read it. */
export interface FoundFile {
  name: string;
  changed: Date;
  bytes: () => Promise<Uint8Array>;
}

/** Folders of the machine that runs may read from and write to, all below one of them. */
export interface Folders {
  /** Folders below the one of all runs, by their paths from there. */
  list(): Promise<string[]>;
  /** The file that was changed last among those whose name holds some words; null where there is none. */
  newest(folder: string, words: string): Promise<FoundFile | null>;
  /** Writes a file whole or not at all, and gives its path from the folder of all runs. */
  write(folder: string, name: string, bytes: Uint8Array): Promise<string>;
}

/** So large may a file be that is taken from a folder. */
const MOST_BYTES = 60 * 1_048_576;
/** So deep is looked for folders, and so many are told. */
const DEPTH = 3;
const MOST_FOLDERS = 200;

const WORDS: Record<string, string> = {
  ENOENT: 'is not there (any more)',
  ENOTDIR: 'is no folder',
  EEXIST: 'is no folder',
  EACCES: 'may not be used by the server',
  EPERM: 'may not be used by the server',
  ENOSPC: 'has no room left: its disk is full',
  EDQUOT: 'has no room left: its share of the disk is used up',
  EROFS: 'cannot be written to',
};

/** A fault of the disk in words; anything else as it is. */
export function troubleOf(error: unknown, what: string): unknown {
  const code = (error as NodeJS.ErrnoException).code ?? '';
  if (!/^E[A-Z0-9]+$/.test(code)) return error;
  return new FolderTrouble(`${what} ${WORDS[code] ?? `cannot be used: the machine says ${code}`}.`);
}

/**
 * Folders below one of the machine; whoever runs the server says which. Paths that lead out of it, also by links, are
 * refused.
 */
export function foldersBelow(root: string | undefined): Folders {
  const within = async (folder: string, make = false): Promise<string> => {
    if (!root)
      throw new FolderTrouble(
        'This server has no folder for weekly runs. Whoever runs it says which, in CLEMBO_FOLDERS.',
      );
    const wanted = resolve(root, folder);
    const outside = (base: string, path: string) => {
      const way = relative(base, path);
      return way === '..' || way.startsWith(`..${sep}`);
    };
    const refuse = () => new FolderTrouble(`“${folder}” leads out of the folder of weekly runs.`);
    if (outside(resolve(root), wanted)) throw refuse();
    try {
      if (make) await mkdir(wanted, { recursive: true });
      const [base, real] = [await realpath(root), await realpath(wanted)];
      if (outside(base, real)) throw refuse();
      return real;
    } catch (error) {
      throw troubleOf(error, `The folder “${folder}”`);
    }
  };
  // Bundlers would take paths that are known only when it runs for files of the program.
  const inside = (...parts: string[]): string => join(/*turbopackIgnore: true*/ ...parts);
  return {
    async list() {
      if (!root) return [];
      const found: string[] = [];
      const walk = async (folder: string, depth: number): Promise<void> => {
        const entries = await readdir(/*turbopackIgnore: true*/ inside(root, folder), { withFileTypes: true }).catch(
          () => [],
        );
        for (const e of entries.filter((x) => x.isDirectory()).sort((a, b) => a.name.localeCompare(b.name))) {
          const path = folder === '' ? e.name : `${folder}/${e.name}`;
          if (found.length < MOST_FOLDERS) found.push(path);
          if (depth < DEPTH) await walk(path, depth + 1);
        }
      };
      await walk('', 1);
      return found;
    },
    async newest(folder, words) {
      const path = await within(folder);
      let best: { name: string; changed: Date; size: number } | null = null;
      try {
        for (const e of await readdir(/*turbopackIgnore: true*/ path, { withFileTypes: true })) {
          const isWanted = e.isFile() && !e.name.startsWith('.') && e.name.toLowerCase().includes(words.toLowerCase());
          if (!isWanted) continue;
          const { mtime, size } = await stat(/*turbopackIgnore: true*/ inside(path, e.name));
          const isNewer = best === null || mtime > best.changed || (+mtime === +best.changed && e.name > best.name);
          if (isNewer) best = { name: e.name, changed: mtime, size };
        }
      } catch (error) {
        throw troubleOf(error, `The folder “${folder}”`);
      }
      if (best === null) return null;
      const { name, changed, size } = best;
      return {
        name,
        changed,
        async bytes() {
          if (size > MOST_BYTES) throw new FolderTrouble(`${name} is larger than ${MOST_BYTES / 1_048_576} MB.`);
          try {
            return new Uint8Array(await readFile(/*turbopackIgnore: true*/ inside(path, name)));
          } catch (error) {
            throw troubleOf(error, `The file ${name}`);
          }
        },
      };
    },
    async write(folder, name, bytes) {
      const path = await within(folder, true);
      const draft = inside(path, `.${name}.part`);
      try {
        const file = await open(draft, 'w');
        try {
          await file.writeFile(bytes);
          await file.sync();
        } finally {
          await file.close();
        }
        await rename(draft, inside(path, name));
      } catch (error) {
        await rm(draft, { force: true }).catch(() => {});
        throw troubleOf(error, `The folder “${folder}”`);
      }
      return `${folder}/${name}`;
    },
  };
}
