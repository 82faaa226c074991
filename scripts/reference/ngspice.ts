/**
 * `node --import tsx scripts/reference/ngspice.ts`: reference ohms of shorted rails, computed by ngspice (Debian), for the test of our own nodal analysis.
 * Writes packages/core/src/electrical/fixture-ngspice.json. Run again only when the rails are to be others; the version that computed them is in the file.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { drawRail, railWithBranches, type ShortedRail } from '@veglia/core';
import { inRoot } from '../lib/paths.mjs';

function numbers(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** One ampere into a node: its volts are the ohms there. One deck a node; an open end is held by a gigaohm. */
function ohmsAt(rail: ShortedRail, node: number, folder: string): number {
  const lines = [
    '* rail',
    ...rail.segments.map((ohms, index) => `R${index + 1} n${rail.on?.[index] ?? index} n${index + 1} ${ohms}`),
    ...rail.shorts.map(({ at, ohms }, index) => `RS${index + 1} n${at} 0 ${ohms}`),
    `RG n0 0 1e9`,
    `I1 0 n${node} 1`,
    '.control',
    'set numdgt=12',
    'op',
    `print v(n${node})`,
    'quit',
    '.endc',
    '.end',
  ];
  const deck = path.join(folder, 'rail.cir');
  writeFileSync(deck, `${lines.join('\n')}\n`);
  const { stdout } = spawnSync('ngspice', ['-b', deck], { encoding: 'utf8' });
  const found = /v\(n\d+\) = ([\d.e+-]+)/i.exec(stdout);
  if (!found) throw new Error(stdout);
  return Number(found[1]);
}

const folder = mkdtempSync(path.join(tmpdir(), 'veglia-ngspice-'));
try {
  const version = /ngspice-[\d.]+/.exec(spawnSync('ngspice', ['--version'], { encoding: 'utf8' }).stdout)?.[0] ?? 'unknown';
  const rails = [1, 2, 3, 4, 5, 6, 7, 8].map((seed) => {
    const random = numbers(seed * 7919);
    const drawn = drawRail(4 + seed, seed % 2 === 0 ? 2 : 1, random);
    // The last two branch: from the third on, and from a branch again.
    const rail = seed < 7 ? drawn : { ...drawn, on: railWithBranches(4 + seed, '3: 6-9; 7: 10').slice(1) };
    return { ...rail, ohms: rail.segments.concat(0).map((_, node) => ohmsAt(rail, node, folder)) };
  });
  writeFileSync(inRoot('packages/core/src/electrical/fixture-ngspice.json'), `${JSON.stringify({ source: version, rails }, null, 1)}\n`);
} finally {
  rmSync(folder, { recursive: true });
}
