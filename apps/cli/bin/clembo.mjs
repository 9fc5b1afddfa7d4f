#!/usr/bin/env node
import { pathToFileURL } from 'node:url';
import { bundle } from './bundle.mjs';

const made = await bundle().catch((error) => {
  process.stderr.write(`clembo: ${error.message}\n`);
  process.exit(1);
});
const { main } = await import(pathToFileURL(made).href);
process.exitCode = await main(process.argv.slice(2));
