#!/usr/bin/env node
// Does the jobs of the database that DATABASE_URL names, until it is stopped.
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { bundle } from '../../../tools/lib/bundle.mjs';

process.env.CLEMBO_ROOT ??= join(dirname(fileURLToPath(import.meta.url)), '../../..');
const entries = { main: 'apps/worker/src/main.ts', hand: 'apps/worker/src/hands/hand.ts' };
const made = await bundle('clembo-worker', entries, ['core', 'formats', 'scene', 'render', 'store']);
await import(pathToFileURL(join(made, 'main.mjs')).href);
