/** For tests only: the shipped pack from disk, and cases in few words. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { assemblePack, compilePack, ownNamesOnly, type CompiledPack, type Pack, type PackFile } from '../knowledge/index.ts';
import { parseCase, type CaseInput } from '../ledger/index.ts';

export const knowledgeFolder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../../../../knowledge');

export function shippedFiles(): PackFile[] {
  return readdirSync(knowledgeFolder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => {
      const full = path.join(entry.parentPath, entry.name);
      return { path: path.relative(knowledgeFolder, full).split(path.sep).join('/'), text: readFileSync(full, 'utf8') };
    });
}

let text: string | undefined;
/** Read and checked once for a test file; a copy each time, to be spoilt. */
export function shippedPack(): Pack {
  text ??= JSON.stringify(assemblePack(shippedFiles()));
  return ownNamesOnly(JSON.parse(text) as Pack);
}

let compiled: CompiledPack | undefined;
export function shipped(): CompiledPack {
  compiled ??= compilePack(shippedPack());
  return compiled;
}

/** 'torch=nothing', 'reseat:harness.picture=unchanged', with '?' behind for think-so; anything else is a body. */
export type Told = string | Record<string, unknown>;

export function caseOf(symptoms: readonly string[], told: readonly Told[] = [], set: Record<string, unknown> = {}): CaseInput {
  const bodies = told.map((one) => {
    if (typeof one !== 'string') return one;
    const [, test, of, outcome, unsure] = /^([a-z.-]+)(?::([a-z.-]+))?=([a-z-]+)(\?)?$/.exec(one) ?? [];
    return {
      kind: 'test.answered',
      v: 2,
      test,
      ...(of === undefined ? {} : { of }),
      outcome,
      sure: unsure === undefined ? 'sure' : 'think-so',
    };
  });
  const complaint = symptoms.length > 0 ? [{ kind: 'symptom.reported', v: 1, symptoms }] : [];
  return parseCase({
    format: 'veglia-case',
    version: 2,
    set: { layout: 'led-tcon', ...set },
    entries: [...complaint, ...bodies].map((body) => ({ body })),
  }).input;
}

export interface ToldCase {
  readonly id: string;
  readonly set: Record<string, unknown>;
  readonly entries: readonly { readonly body: Record<string, unknown> }[];
}

/** The reference cases that ship, without what they expect. */
export const referenceCases = (): ToldCase[] =>
  readdirSync(path.join(knowledgeFolder, 'reference-cases'))
    .filter((file) => file !== 'known-misses.json')
    .flatMap(
      (file) => (JSON.parse(readFileSync(path.join(knowledgeFolder, 'reference-cases', file), 'utf8')) as { cases: ToldCase[] }).cases,
    );
