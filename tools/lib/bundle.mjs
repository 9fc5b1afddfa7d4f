import { accessSync, constants, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');
const PASSED_OVER = new Set(['node_modules', 'tests']);

/** Time of the last change to any of the sources, in whole milliseconds. */
function lastChange(parts) {
  let last = Math.max(...['package-lock.json', 'tools/lib/bundle.mjs'].map((f) => statSync(join(ROOT, f)).mtimeMs));
  const walk = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      const path = join(folder, entry.name);
      if (!entry.isDirectory()) last = Math.max(last, statSync(path).mtimeMs);
      else if (!PASSED_OVER.has(entry.name)) walk(path);
    }
  };
  for (const part of parts) walk(join(ROOT, part));
  return Math.floor(last);
}

/**
 * Programs of ours as plain JavaScript, which starts many times faster than its sources do. Made at the first run
 * and again after a change to the sources; the folder that holds `<entry>.mjs` for every entry.
 */
export async function bundle(name, entries, packages) {
  const cache = join(ROOT, 'node_modules/.cache', name);
  const parts = [`apps/${name.replace('clembo-', '')}/src`, ...packages.map((p) => `packages/${p}`)];
  const made = join(cache, String(lastChange(parts)));
  if (existsSync(made)) return made;
  const { build } = await import('esbuild');
  const fresh = `${made}.${process.pid}`;
  try {
    mkdirSync(cache, { recursive: true });
    accessSync(cache, constants.W_OK);
  } catch (error) {
    throw new Error(`${cache} cannot be written (${error.code}). Run clembo once as the user who installed it.`);
  }
  await build({
    absWorkingDir: ROOT,
    entryPoints: entries,
    outdir: fresh,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    external: ['@resvg/resvg-js', 'pdfkit', 'date-holidays', 'graphile-worker', 'pg', 'pg-native', 'web-ifc'],
    banner: {
      js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);",
    },
    logLevel: 'error',
  });
  for (const old of readdirSync(cache)) {
    if (/^\d+$/.test(old)) rmSync(join(cache, old), { recursive: true, force: true });
  }
  try {
    renameSync(fresh, made);
  } catch {
    // Another run was quicker.
    rmSync(fresh, { recursive: true, force: true });
  }
  return made;
}
