#!/usr/bin/env node
// Starts the command line: registers the TypeScript loader and hands over to src/main.ts.
import { register } from 'tsx/esm/api';
register();
const { main } = await import('../src/main.ts');
process.exitCode = await main(process.argv.slice(2));
