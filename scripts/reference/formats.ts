/**
 * `node --import tsx scripts/reference/formats.ts`: image files made by srec_cat (Debian's srecord, must be installed), for the test of our own readers. Writes
 * packages/core/src/firmware/fixture-formats.json. Run again only when the bytes are to be others; the version that made them is in the file.
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { inRoot } from '../lib/paths.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'veglia-formats-'));
const file = (name: string): string => path.join(folder, name);
const bytes = createHash('sha512').update('veglia').digest();
writeFileSync(file('in.bin'), bytes);
const kinds: Readonly<Record<string, readonly string[]>> = {
  'intel-hex': ['-Intel'],
  'intel-hex-segmented': ['-Intel', '-address-length=3'],
  's-record-16': ['-Motorola', '-address-length=2'],
  's-record-24': ['-Motorola', '-address-length=3'],
  's-record-32': ['-Motorola', '-address-length=4'],
};
const made = Object.entries(kinds).map(([name, as]) => {
  // The second half stands 32 bytes further up: a gap.
  const args = ['in.bin', '-binary', '-crop', '0', '32', 'in.bin', '-binary', '-crop', '32', '64', '-offset', '32', '-o', 'out', ...as];
  const run = spawnSync('srec_cat', args, { cwd: folder, encoding: 'utf8' });
  if (run.status !== 0) throw new Error(run.stderr);
  return { name, text: readFileSync(file('out'), 'latin1') };
});
const version = spawnSync('srec_cat', ['--version'], { encoding: 'utf8' }).stdout.split('\n')[0];
rmSync(folder, { recursive: true });
writeFileSync(
  inRoot('packages/core/src/firmware/fixture-formats.json'),
  `${JSON.stringify({ madeBy: version, bytes: bytes.toString('hex'), gap: [32, 64], files: made }, null, 2)}\n`,
);
