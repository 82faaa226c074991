/** `veglia <verb>`: thin over core. JSON out; exit code 0 fine, 1 the input is wrong, 2 the call is wrong. */
import { problemSentence, reasonSentence, words } from '@veglia/contract';
import {
  caseFileSchema,
  checkPack,
  foldCase,
  hashPack,
  InputRefused,
  packSchema,
  policies,
  type CaseFold,
  type NextStep,
  type Policy,
  type Problem,
} from '@veglia/core';
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { z } from 'zod';
import { readCase, readPack, shippedPackFolder } from './input.ts';

export const exitCodes = { fine: 0, wrongInput: 1, wrongCall: 2 } as const;

const print = (value: unknown): void => void process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
const told = (problems: readonly Problem[]): object[] =>
  problems.map((problem) => ({ ...problem, sentence: problemSentence(problem, words.en) }));

/** A step with its reason as a sentence. */
const stepOut = (step: NextStep): object => ({
  ...step,
  because: { ...step.because, sentence: reasonSentence(step, words.en, (id) => id) },
});

function foldOut(fold: CaseFold, hasCounts: boolean): object {
  const counts = hasCounts ? [{ entry: 'case', code: 'counts-not-used' }] : [];
  const leftOut = fold.leftOut.map(({ code, step }) => ({ id: step.id, ...(step.of === undefined ? {} : { of: step.of }), code }));
  return { ...fold, next: fold.next.map(stepOut), leftOut, unused: [...fold.unused, ...counts] };
}

const positive = (text: string): number => {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1) throw new InvalidArgumentError('a whole number from 1');
  return value;
};

interface CaseOptions {
  readonly pack: string;
  readonly policy: Policy;
  readonly top?: number;
}

function program(): Command {
  const veglia = new Command('veglia').description('Veglia from the command line: packs and case files, JSON in and out.');
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
    .command('schema')
    .description('JSON Schema of a pack document')
    .action(() => print(z.toJSONSchema(packSchema)));

  const cases = veglia.command('case').description('case files');
  const packOption = (): Option =>
    new Option('--pack <source>', 'pack to fold with, unless the case has its own').default(shippedPackFolder, 'the shipped one');
  const policyOption = (): Option => new Option('--policy <policy>', 'how to choose the next step').choices(policies).default('cost');
  cases
    .command('fold')
    .description('what a case amounts to: odds, verdicts, state of the set, doubts, next steps')
    .argument('<file>', 'case file, or - for standard input')
    .addOption(packOption())
    .addOption(policyOption())
    .action(async (file: string, options: CaseOptions) => {
      const { input, compiled, file: document } = await readCase(file, options.pack);
      print(foldOut(foldCase(input, compiled, options.policy), document.counts !== undefined));
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
      print({ engine: fold.engine, pack: fold.pack, policy: options.policy, next: fold.next.slice(0, options.top).map(stepOut) });
    });
  cases
    .command('schema')
    .description('JSON Schema of a case file')
    .action(() => print(z.toJSONSchema(caseFileSchema)));

  for (const command of [veglia, pack, cases, ...pack.commands, ...cases.commands]) command.exitOverride();
  return veglia;
}

/** Runs one call; resolves to its exit code. */
export async function main(args: readonly string[]): Promise<number> {
  try {
    await program().parseAsync(args, { from: 'user' });
    return exitCodes.fine;
  } catch (error) {
    if (error instanceof InputRefused) {
      print({ ok: false, problems: told(error.problems) });
      return exitCodes.wrongInput;
    }
    // Commander has written what is wrong, or the help that was asked for.
    if (error instanceof CommanderError) return error.exitCode === 0 ? exitCodes.fine : exitCodes.wrongCall;
    throw error;
  }
}
