// Bundles the benchmark as the application is bundled, then runs it: helpers that only a development loader
// adds to the code are not measured.
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { build } from 'esbuild';

const root = join(dirname(fileURLToPath(import.meta.url)), '../..');
const outfile = join(root, 'node_modules/.cache/clembo-bench/bench.mjs');
await build({
  absWorkingDir: root,
  entryPoints: [process.argv[2] ?? 'tests/bench/bench.ts'],
  outfile,
  bundle: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  external: ['@resvg/resvg-js', 'pdfkit'],
  banner: {
    js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);",
  },
  logLevel: 'error',
});
await import(pathToFileURL(outfile).href);
