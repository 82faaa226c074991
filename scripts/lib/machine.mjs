/**
 * A throw-away copy of this machine, booted by systemd in namespaces of its own: what is installed, started or broken in it is gone with it, and it reaches
 * nothing but itself. Needs root and Debian's systemd-container.
 */
import { spawn } from 'node:child_process';
import {
  appendFileSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ask, isRoot } from './run.mjs';

const bootPatience = 90_000;
/** What of this machine's services would only get in the way. */
const masked = [
  'systemd-networkd.service',
  'systemd-networkd.socket',
  'systemd-networkd-wait-online.service',
  'pg_receivewal@.service',
  'apt-daily.timer',
  'apt-daily-upgrade.timer',
  'e2scrub_all.timer',
  'fstrim.timer',
  'man-db.timer',
];

/** Whether such a machine can be made here; a reason where it can't. */
export function machinePossible() {
  if (!isRoot()) return 'only root can boot a machine';
  if (!ask('sh', ['-c', 'command -v systemd-nspawn']).ok) return 'systemd-container is not installed';
  const tried = ask('unshare', ['--mount', '--pid', '--fork', 'true']);
  return tried.ok ? undefined : 'namespaces are not allowed here';
}

export class Machine {
  #folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-machine-'));
  #child;
  #said = path.join(this.#folder, 'console');
  leader = 0;

  get root() {
    return path.join(this.#folder, 'over/root');
  }

  /** A layer over this machine's files, in memory. */
  constructor() {
    const over = path.join(this.#folder, 'over');
    mkdirSync(over);
    this.#must('mount', ['-t', 'tmpfs', '-o', 'size=6g', 'tmpfs', over]);
    for (const name of ['upper', 'work', 'root']) mkdirSync(path.join(over, name));
    this.#must('mount', ['-t', 'overlay', 'overlay', '-o', `lowerdir=/,upperdir=${over}/upper,workdir=${over}/work`, this.root]);
    rmSync(path.join(this.root, 'etc/machine-id'), { force: true });
    writeFileSync(path.join(this.root, 'etc/hostname'), 'veglia-test\n');
    appendFileSync(path.join(this.root, 'etc/hosts'), '\n127.0.0.1 bench.example.org\n');
    for (const unit of masked) ask('systemctl', ['--root', this.root, 'mask', unit]);
  }

  #must(command, args) {
    const { ok, err, out } = ask(command, args, { maxBuffer: 2 ** 26 });
    if (!ok) throw new Error(`${command} ${args.join(' ')}: ${err}${out}`);
    return out;
  }

  /** Runs something in its files before it boots, with this machine's network: packages are installed so. */
  prepare(args) {
    return this.#must('systemd-nspawn', [
      '--quiet',
      '--pipe',
      '--register=no',
      '--keep-unit',
      '-D',
      this.root,
      '--setenv=DEBIAN_FRONTEND=noninteractive',
      ...args,
    ]);
  }

  /** Before it boots: these are not started by themselves. */
  disable(...units) {
    for (const unit of units) ask('systemctl', ['--root', this.root, 'disable', unit]);
  }

  /** Puts a file of this machine into it. */
  put(file, where) {
    copyFileSync(file, path.join(this.root, where));
  }

  /** Resolves once systemd has started what it has to. */
  async boot() {
    const args = ['--quiet', '--boot', '--register=no', '--keep-unit', '--private-network', '--console=pipe', '-D', this.root];
    this.#child = spawn('systemd-nspawn', args, { stdio: ['ignore', 'pipe', 'pipe'] });
    for (const stream of [this.#child.stdout, this.#child.stderr]) stream.on('data', (piece) => appendFileSync(this.#said, piece));
    const deadline = Date.now() + bootPatience;
    for (;;) {
      if (Date.now() > deadline || this.#child.exitCode !== null)
        throw new Error(`the machine does not boot: ${existsSync(this.#said) ? readFileSync(this.#said, 'utf8').slice(-2000) : ''}`);
      this.leader ||= this.#initOf(this.#child.pid);
      if (this.leader > 0) {
        const { out } = this.try('systemctl', ['is-system-running']);
        if (/^(running|degraded)/.test(out)) return;
      }
      await pause(200);
    }
  }

  /** The process that is number 1 in there. */
  #initOf(parent) {
    for (const name of readdirSync('/proc')) {
      if (!/^\d+$/.test(name)) continue;
      try {
        const status = readFileSync(`/proc/${name}/status`, 'utf8');
        if (new RegExp(`^PPid:\\s+${parent}$`, 'm').test(status) && /^NSpid:\s+\d+\s+1$/m.test(status)) return Number(name);
      } catch {
        // Gone meanwhile.
      }
    }
    return 0;
  }

  /** Runs a command in it; its code and what it said. */
  try(command, args = [], { input } = {}) {
    const inside = ['-t', String(this.leader), '-m', '-u', '-i', '-n', '-p', '--root', '--wd', '--', 'env', '-i'];
    const env = [
      'PATH=/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin',
      'HOME=/root',
      'LANG=C.UTF-8',
      'DEBIAN_FRONTEND=noninteractive',
    ];
    const result = ask('nsenter', [...inside, ...env, command, ...args], {
      maxBuffer: 2 ** 28,
      ...(input === undefined ? {} : { input, stdio: 'pipe' }),
    });
    return { code: result.status, out: result.out, err: result.err };
  }

  /** The same, where it has to end well; what it printed. */
  run(command, args = [], options = {}) {
    const { code, out, err } = this.try(command, args, options);
    if (code !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${code}: ${err}${out}`);
    return out;
  }

  async remove() {
    if (this.#child && this.#child.exitCode === null) {
      const gone = new Promise((resolve) => this.#child.once('exit', resolve));
      this.#child.kill('SIGTERM');
      await Promise.race([gone, pause(15_000).then(() => this.#child.kill('SIGKILL'))]);
    }
    ask('umount', ['-l', this.root]);
    ask('umount', ['-l', path.join(this.#folder, 'over')]);
    rmSync(this.#folder, { recursive: true, force: true });
  }
}
