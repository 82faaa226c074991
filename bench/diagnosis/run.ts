/**
 * Ways of deciding side by side, on the pack and on the simulated set. Prints tables and writes bench/results/diagnosis.json.
 *
 *   npm run bench:diagnosis -- [--quick] [--seed N] [--part "name"]
 *
 * --quick takes about three minutes on two cores, the whole about half an hour. Exits 1 where the fixed list does worse than a random
 * legal order on any layout: it would be no fair opponent.
 */
import { fork } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { full, partNames, quick, runPart, type PartName, type Size, type WayFigures } from './parts.ts';
import { shown, type Estimate } from './statistics.ts';

interface Job {
  readonly name: PartName;
  readonly size: Size;
}

const child = process.argv[2] === '--child' ? process.argv[3] : undefined;
if (child !== undefined) {
  const { name, size } = JSON.parse(child) as Job;
  process.send?.(await runPart(name, size));
  process.disconnect();
} else {
  const { values } = parseArgs({ options: { quick: { type: 'boolean' }, seed: { type: 'string' }, part: { type: 'string' } } });
  const base = values.quick ? quick : full;
  const size = values.seed === undefined ? base : { ...base, seed: Number(values.seed) };
  const wanted = values.part === undefined ? partNames : partNames.filter((name) => name === values.part);
  if (wanted.length === 0) {
    console.error(`No part "${values.part ?? ''}". Parts: ${partNames.join('; ')}`);
    process.exit(2);
  }
  const started = Date.now();
  const results: Partial<Record<PartName, unknown>> = {};
  const keep = (): void => {
    const report = { at: new Date().toISOString(), quick: values.quick === true, size, seconds: (Date.now() - started) / 1000, results };
    mkdirSync(new URL('../results/', import.meta.url), { recursive: true });
    const file = values.part === undefined ? (values.quick ? 'diagnosis-quick.json' : 'diagnosis.json') : 'diagnosis-part.json';
    writeFileSync(new URL(`../results/${file}`, import.meta.url), `${JSON.stringify(report, null, 1)}\n`);
  };
  const waiting = [...wanted];
  // Two cores; what is timed runs alone, last.
  const timed = waiting.includes('time') && waiting.length > 1;
  if (timed) waiting.splice(waiting.indexOf('time'), 1);
  const lane = async (): Promise<void> => {
    for (let name = waiting.shift(); name !== undefined; name = waiting.shift()) {
      const begun = Date.now();
      results[name] = await inWorker({ name, size });
      // Printed and kept as they come: a run that is cut off has lost the last part only.
      print(name, results[name]);
      keep();
      console.error(`${name}: ${((Date.now() - begun) / 1000).toFixed(0)} s`);
    }
  };
  await Promise.all([lane(), lane()]);
  if (timed) {
    results.time = await inWorker({ name: 'time', size });
    print('time', results.time);
  }
  keep();
  const layouts =
    (results['simulated set, clean'] as { layouts?: { layout: string; list: number; random: number }[] } | undefined)?.layouts ?? [];
  const unfair = layouts.filter(({ list, random }) => list > random);
  for (const { layout } of unfair) console.error(`The fixed list does worse than a random legal order on ${layout}: no fair opponent.`);
  process.exitCode = unfair.length > 0 ? 1 : 0;
}

function inWorker(job: Job): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const worker = fork(fileURLToPath(import.meta.url), ['--child', JSON.stringify(job)], { execArgv: ['--import', 'tsx'] });
    worker.once('message', resolve);
    worker.once('error', reject);
    worker.once('exit', (code) => {
      if (code !== 0) reject(new Error(`${job.name} ended with ${code}`));
    });
  });
}

function isTable(value: unknown): value is WayFigures[] {
  return Array.isArray(value) && value.every((one) => typeof one === 'object' && one !== null && 'way' in one);
}

function print(name: string, value: unknown): void {
  console.log(`\n## ${name}`);
  if (isTable(value)) {
    console.table(
      Object.fromEntries(
        value.map((one) => [
          one.way,
          {
            cases: one.cases,
            'cost/list': shown(one.costAgainstList),
            'cost/.75': one.costAgainstListTo75 ? shown(one.costAgainstListTo75) : '',
            'avoidable gone': one.avoidableRemoved.toFixed(2),
            minutes: one.minutes.value.toFixed(0),
            tests: one.tests.value.toFixed(1),
            'wrong parts': one.wrongParts.value.toFixed(3),
            'wrong/list': shown(one.wrongPartsAgainstList, 2),
            'first right': shown(one.firstPartRight),
            'given up': one.givenUp.value.toFixed(3),
            right: shown(one.right),
            'ms p95': one.thoughtMs.p95.toFixed(1),
          },
        ]),
      ),
    );
    return;
  }
  for (const [key, part] of Object.entries(value ?? {})) {
    if (isTable(part)) print(key, part);
    else if (Array.isArray(part)) console.table(part);
    else console.log(`${key}:`, isEstimate(part) ? shown(part) : JSON.stringify(part));
  }
}

function isEstimate(value: unknown): value is Estimate {
  return typeof value === 'object' && value !== null && 'least' in value && 'most' in value;
}
