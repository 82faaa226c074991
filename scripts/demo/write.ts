/** `npm run demo:jobs`: makes the played jobs of demo/jobs anew. */
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { readPackFolder } from '@veglia/contract/node';
import { compilePack } from '@veglia/core';
import { inRoot } from '../lib/paths.mjs';
import { playedJobs, type Names } from './played.ts';

const compiled = compilePack(await readPackFolder(inRoot('knowledge')));
const names = JSON.parse(readFileSync(inRoot('demo/names.json'), 'utf8')) as Names;
const folder = inRoot('demo/jobs');
for (const name of readdirSync(folder)) if (/^[1-9]\d-/.test(name)) rmSync(`${folder}/${name}`);
const jobs = playedJobs(compiled, names);
for (const [name, job] of jobs) writeFileSync(`${folder}/${name}`, `${JSON.stringify(job, null, 1)}\n`);
console.log(`${jobs.size} jobs written to demo/jobs.`);
