/** `veglia <verb>`: thin over core. JSON out; exit code 0 fine, 1 the input is wrong, 2 the call is wrong. */
import { readFileSync } from 'node:fs';
import { comparisonSentence, instrumentWords, problemSentence, reasonSentence, words } from '@veglia/contract';
import {
  caseFileSchema,
  checkPack,
  compareSteps,
  foldCase,
  hashPack,
  InputRefused,
  instruments,
  judgeCase,
  missName,
  packSchema,
  policies,
  type CaseFold,
  sheetStates,
  type NextStep,
  type Policy,
  type Problem,
} from '@veglia/core';
import { smallModel, worlds } from '@veglia/simulators';
import { Command, CommanderError, Option } from 'commander';
import { z } from 'zod';
import { readCase, readCompiled, readPack, readReferenceCases, shippedCasesFolder, shippedPackFolder } from './input.ts';
import { backupCommands } from './backupCommands.ts';
import { imageCommands } from './imageCommands.ts';
import { instrument } from './instruments.ts';
import { positive, shareOfOne, wholeNumber } from './options.ts';
import { packReport, usualPlays } from './packReport.ts';
import { checkTable, familyNamed, readBlink, readText } from './blink.ts';
import { plainModel } from './plainModel.ts';
import { rails, type RailsOptions } from './rails.ts';
import { thermal } from './thermal.ts';
import { simulate, type SimulateOptions } from './simulate.ts';

const manifest = z.object({ version: z.string() }).parse(JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8')));

/** What the command ends with. */
export const exitCodes = { fine: 0, wrongInput: 1, wrongCall: 2 } as const;

/** Where a call's words go. */
export interface Io {
  out(text: string): void;
  err(text: string): void;
}
const processIo: Io = { out: (text) => void process.stdout.write(text), err: (text) => void process.stderr.write(text) };
type Print = (value: unknown) => void;
const printTo =
  (io: Io): Print =>
  (value) =>
    io.out(`${JSON.stringify(value, null, 2)}\n`);
const told = (problems: readonly Problem[]): object[] =>
  problems.map((problem) => ({ ...problem, sentence: problemSentence(problem, words.en) }));

/** A step with its reason as a sentence. */
const stepOut = (step: NextStep): object => ({
  ...step,
  because: { ...step.because, sentence: reasonSentence(step, words.en, (id) => id) },
});

function foldOut(fold: CaseFold): object {
  const leftOut = fold.leftOut.map(({ code, step }) => ({ id: step.id, ...(step.of === undefined ? {} : { of: step.of }), code }));
  return { ...fold, next: fold.next.map(stepOut), leftOut, unused: fold.unused };
}

interface CaseOptions {
  readonly pack: string;
  readonly policy: Policy;
  readonly top?: number;
}

function program(io: Io): Command {
  const print = printTo(io);
  const veglia = new Command('veglia')
    .description('Veglia from the command line: packs and case files, JSON in and out.')
    .version(manifest.version, '-V, --version', 'the version of Veglia and nothing else');
  const pack = veglia.command('pack').description('knowledge packs');
  pack
    .command('check')
    .description('check a pack (a document, or a folder of small files); without an argument the shipped one')
    .argument('[source]', 'file or folder', shippedPackFolder)
    .action(async (source: string) => {
      const read = await readPack(source);
      const problems = checkPack(read);
      if (problems.length > 0) throw new InputRefused(problems);
      const { layouts, faults, tests, repairs, families } = read;
      const counts = {
        layouts: layouts.length,
        faults: faults.length,
        tests: tests.length,
        repairs: repairs.length,
        families: families.length,
      };
      print({ ok: true, hash: hashPack(read), ...counts, problems: [] });
    });
  pack
    .command('report')
    .description('what a sound pack still says of itself: pairs only a swap tells apart, tests never asked for; takes a minute')
    .argument('[source]', 'file or folder', shippedPackFolder)
    .option('--plays <count>', 'plays of each fault before a test counts as never asked for', positive, usualPlays)
    .action(async (source: string, { plays }: { plays: number }) => print(packReport((await readCompiled(source)).compiled, plays)));
  pack
    .command('schema')
    .description('JSON Schema of a pack document')
    .action(() => print(z.toJSONSchema(packSchema)));

  backupCommands(veglia, { print, err: (text) => io.err(text) });
  imageCommands(veglia, { print, err: (text) => io.err(text) });

  const cases = veglia.command('case').description('case files');
  const packOption = (): Option =>
    new Option('--pack <source>', 'pack to fold with, unless the case has its own').default(shippedPackFolder, 'the shipped one');
  const policyOption = (): Option => new Option('--policy <policy>', 'how to choose the next step').choices(policies).default('cost');
  cases
    .command('fold')
    .description('what a case amounts to: probabilities, verdicts, state of the set, doubts, next steps')
    .argument('<file>', 'case file, or - for standard input')
    .addOption(packOption())
    .addOption(policyOption())
    .action(async (file: string, options: CaseOptions) => {
      const { input, compiled } = await readCase(file, options.pack);
      print(foldOut(foldCase(input, compiled, options.policy)));
    });
  cases
    .command('next')
    .description('what to do next')
    .argument('<file>', 'case file, or - for standard input')
    .addOption(packOption())
    .addOption(policyOption())
    .option('--top <count>', 'only the best so many', positive)
    .action(async (file: string, options: CaseOptions) => {
      const { input, compiled } = await readCase(file, options.pack);
      const fold = foldCase(input, compiled, options.policy);
      const before = compareSteps(fold.next).map((one) => ({
        than: one.other.id,
        code: one.code,
        sentence: comparisonSentence(one, words.en, (step) => (step.of === undefined ? step.id : `${step.id} (${step.of})`)),
      }));
      const next = fold.next.slice(0, options.top).map(stepOut);
      print({ engine: fold.engine, pack: fold.pack, policy: options.policy, next, before });
    });
  cases
    .command('check')
    .description('hold reference cases against the pack (a file, or a folder of them): every expectation that fails, with what was found')
    .argument('[source]', 'file or folder', shippedCasesFolder)
    .addOption(packOption())
    .action(async (source: string, options: { pack: string }) => {
      const read = await readReferenceCases(source);
      const { compiled } = await readCompiled(options.pack);
      const judged = read.cases.flatMap((one) => judgeCase(one, compiled));
      const failed = judged.filter((one) => !one.holds).map((one) => ({ ...one, known: read.knownMisses.has(missName(one)) }));
      const unlisted = failed.filter(({ known }) => !known).length;
      print({
        ok: unlisted === 0,
        cases: read.cases.length,
        expectations: judged.length,
        hold: judged.length - failed.length,
        unlisted,
        failed,
      });
      if (unlisted > 0) throw new CommanderError(exitCodes.wrongInput, 'veglia.missed', '');
    });
  cases
    .command('schema')
    .description('JSON Schema of a case file')
    .action(() => print(z.toJSONSchema(caseFileSchema)));

  veglia
    .command('simulate')
    .description('play a case on the simulated set and print its case file; with --do, answer one test for an outside player')
    .option('--layout <id>', 'layout of the set')
    .option('--family <id>', 'family of the set')
    .option('--fault <ids>', 'what is wrong with it; several joined by commas', (text) => text.split(','))
    .option('--seed <number>', 'seed of how the fault shows, noise and errors', wholeNumber, 1)
    .option('--errors <share>', 'share of answers that come out wrong', shareOfOne, 0)
    .option('--do <test>', 'one test, with its object behind a colon where it names one')
    .option('--repair <id>', 'one repair')
    .option('--session <file>', 'what an outside player keeps between calls')
    .addOption(
      new Option(
        '--world <name>',
        'a set from a simulated workshop the pack was not written for; the seed is the number of the case',
      ).choices(worlds),
    )
    .addOption(packOption())
    .addOption(policyOption())
    .action(async (options: SimulateOptions & { pack: string }) => {
      const { compiled } = await readCompiled(options.pack);
      print(await simulate(options, compiled));
    });
  veglia
    .command('bench-model')
    .description('a small model cut from the pack, as plain numbers: probabilities, tests with their rows and costs, repairs, stages')
    .option('--faults <count>', 'hypotheses', positive, 10)
    .option('--tests <count>', 'tests', positive, 8)
    .option('--seed <number>', 'which one', wholeNumber, 1)
    .addOption(packOption())
    .action(async ({ faults, tests, seed, pack: source }: { faults: number; tests: number; seed: number; pack: string }) => {
      const { compiled } = await readCompiled(source);
      const model = smallModel(compiled, faults, tests, seed);
      if (!model)
        throw new InputRefused([
          { code: 'unknown-id', where: '--seed', value: seed, expected: `model of ${faults} faults and ${tests} tests` },
        ]);
      print(plainModel(model));
    });

  veglia
    .command('blink')
    .description('read a light from a trace (CSV with time_s,level[,colour]); with a family, what its table says')
    .argument('<file>', 'trace, or - for standard input')
    .option('--family <id>', 'whose table to look in')
    .addOption(packOption())
    .action(async (file: string, options: { family?: string; pack: string }) => {
      const family = options.family === undefined ? undefined : familyNamed((await readCompiled(options.pack)).compiled, options.family);
      print(await readBlink(file, family));
    });
  const tables = veglia.command('blink-table').description('blink tables of families');
  tables
    .command('check')
    .description('every problem of a table, by row (JSON, or CSV with --family)')
    .argument('<file>', 'table, or - for standard input')
    .option('--family <id>', 'whose table a CSV is')
    .addOption(packOption())
    .action(async (file: string, options: { family?: string; pack: string }) => {
      const { compiled } = await readCompiled(options.pack);
      print(checkTable(await readText(file), file, options.family, compiled));
    });

  veglia
    .command('rails')
    .description('readings of one state of the set: what belongs there, and what each is called')
    .argument('[readings...]', 'POINT=VALUE or POINT=VALUE,pulsing (or trips): 5.1, 3V3, 420mV, 4k7, OL')
    .requiredOption('--layout <id>', 'layout of the set')
    .option('--family <id>', 'family of the set')
    .option('--printed <point=volts...>', 'what is printed on the board; end the list with --')
    .addOption(new Option('--state <state>', 'how the set stands').choices(sheetStates).makeOptionMandatory())
    .addOption(packOption())
    .action(async (readings: string[], options: RailsOptions & { pack: string }) =>
      print(rails(readings, options, (await readCompiled(options.pack)).compiled)),
    );

  veglia
    .command('thermal')
    .description('what warms between temperature pictures around power-on (CSV matrices), ranked by how fast')
    .argument('<pictures...>', 'SECONDS=FILE each, the first from before power-on')
    .action(async (pictures: string[]) => print(await thermal(pictures)));

  for (const one of instruments)
    veglia
      .command(one.id)
      .description(instrumentWords.en.instrument[one.id]?.help ?? one.id)
      .argument('[fields...]', `FIELD=VALUE (${one.fields.map(({ id }) => id).join(', ')}), or one JSON file, - for standard input`)
      .action(async (words: string[]) => print(await instrument(one, words)));

  for (const command of [veglia, tables, pack, cases, ...tables.commands, ...pack.commands, ...cases.commands])
    command.exitOverride().configureOutput({ writeOut: (text) => io.out(text), writeErr: (text) => io.err(text) });
  return veglia;
}

/** Runs one call on this process's own streams; resolves to its exit code. */
export const main = (args: readonly string[]): Promise<number> => run(args, processIo);

/** Runs one call, its words to `io`; resolves to its exit code. */
export async function run(args: readonly string[], io: Io): Promise<number> {
  try {
    await program(io).parseAsync(args, { from: 'user' });
    return exitCodes.fine;
  } catch (error) {
    if (error instanceof InputRefused) {
      printTo(io)({ ok: false, problems: told(error.problems) });
      return exitCodes.wrongInput;
    }
    // Commander has written what is wrong, or the help that was asked for.
    if (error instanceof CommanderError) {
      if (error.code === 'veglia.missed') return exitCodes.wrongInput;
      return error.exitCode === 0 ? exitCodes.fine : exitCodes.wrongCall;
    }
    throw error;
  }
}
