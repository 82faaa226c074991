#!/usr/bin/env node
// The sources are TypeScript and run as they are.
import { register } from 'tsx/esm/api';

register();
const { main } = await import('../src/main.ts');
process.exitCode = await main(process.argv.slice(2));
