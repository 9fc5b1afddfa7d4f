#!/usr/bin/env node
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { bundle } from '../../../tools/lib/bundle.mjs';

const PACKAGES = ['core', 'formats', 'scene', 'render'];
const made = await bundle('clembo-cli', { main: 'apps/cli/src/main.ts' }, PACKAGES).catch((error) => {
  process.stderr.write(`clembo: ${error.message}\n`);
  process.exit(1);
});
const { main } = await import(pathToFileURL(join(made, 'main.mjs')).href);
process.exitCode = await main(process.argv.slice(2));
