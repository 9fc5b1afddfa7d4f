#!/usr/bin/env node
import { pathToFileURL } from 'node:url';
import { bundle } from './bundle.mjs';

const { main } = await import(pathToFileURL(await bundle()).href);
process.exitCode = await main(process.argv.slice(2));
