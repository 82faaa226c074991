import { spawn, spawnSync } from 'node:child_process';
import { root } from './paths.mjs';

/** Runs a command to its end with its output shown; resolves to the exit code (128 where a signal ended it). */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], ...options });
    child.once('error', reject);
    child.once('exit', (code) => resolve(code ?? 128));
  });
}

/** Runs a short command quietly; `ok` tells whether it ended with 0. */
export function ask(command, args, options = {}) {
  const result = spawnSync(command, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'], ...options });
  return { ok: result.status === 0, status: result.status, out: result.stdout ?? '', err: result.stderr ?? String(result.error ?? '') };
}

export const isRoot = () => process.getuid?.() === 0;

/** The npm that started this script, else the one in PATH. Works alike with npm 10 and 11. */
export function npm(args, options = {}) {
  const cli = process.env.npm_execpath;
  return cli && cli.endsWith('.js') ? run(process.execPath, [cli, ...args], options) : run('npm', args, options);
}
