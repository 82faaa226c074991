/**
 * Folder form -> document form. The caller reads the files (core touches no disk); paths decide where each goes:
 *
 *   pack.json                      the document's head: title, thresholds, aliases
 *   scale.json                     the words and their numbers
 *   assemblies|symptoms|classes|stages|cautions|places|tools|schools|looks|labels|histories|consequences|proof.json   one list each
 *   reference-cases/, reference-shares.json   no part of the pack: passed over
 *   layouts|faults|tests|repairs|families/*.json  one item or a list of items a file; a layout may
 *                                                 be made from another one (specialise.ts)
 */
import { InputRefused, problemsOfSchema, type Problem } from '../problems.ts';
import { objectsOf, testFits } from './applies.ts';
import { packSchema, type Layout, type Pack, type TestDefinition } from './schema.ts';
import { upgradePack } from './upgrade.ts';
import { keepWhatApplies, wholeLayouts } from './specialise.ts';

/** A file of a pack; `path` within its folder, with slashes. */
export interface PackFile {
  /** Relative to the pack's folder, with forward slashes. */
  readonly path: string;
  readonly text: string;
}

/** Beside the pack and no part of it: cases and shares that it is held against. */
const besideThePack = ['reference-cases/', 'reference-shares.json'];

const singleLists = [
  'assemblies',
  'symptoms',
  'stages',
  'cautions',
  'places',
  'tools',
  'schools',
  'looks',
  'labels',
  'classes',
  'histories',
  'consequences',
  'proof',
] as const;
const folders = ['layouts', 'faults', 'tests', 'repairs', 'families'] as const;

/** Throws InputRefused with every file that isn't JSON and every schema issue. Item order follows the file names. */
export function assemblePack(files: readonly PackFile[]): Pack {
  const problems: Problem[] = [];
  const document: Record<string, unknown> = {};
  const lists = new Map<string, unknown[]>([...singleLists, ...folders].map((name) => [name, []]));
  const sorted = files
    .filter((file) => !besideThePack.some((one) => file.path.startsWith(one)))
    .sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
  for (const file of sorted) {
    let content: unknown;
    try {
      content = JSON.parse(file.text);
    } catch (error) {
      problems.push({ code: 'not-json', where: file.path, expected: String((error as Error).message) });
      continue;
    }
    const top = file.path.split('/')[0] ?? '';
    const stem = top.replace(/\.json$/, '');
    if (file.path === 'pack.json') Object.assign(document, content);
    else if (file.path === 'scale.json') document.scale = content;
    else if (lists.has(stem)) lists.get(stem)?.push(...(Array.isArray(content) ? (content as unknown[]) : [content]));
    else problems.push({ code: 'schema', where: file.path, expected: 'a file of the pack (see docs/knowledge.md)' });
  }
  const written = lists.get('layouts') ?? [];
  const inherited = new Set(written.filter((item) => Object.hasOwn(item as object, 'from')).map((item) => (item as { id: unknown }).id));
  lists.set('layouts', wholeLayouts(written, problems));
  for (const [name, items] of lists) document[name] = items;
  if (problems.length > 0) throw new InputRefused(problems);
  const pack = parsePack(document);
  if (inherited.size === 0) return pack;
  const layouts = pack.layouts.map((layout) =>
    inherited.has(layout.id) ? (keepWhatApplies(layout, (test, of) => applies(pack, layout, test, of)) as Layout) : layout,
  );
  return parsePack({ ...pack, layouts });
}

function applies(pack: Pack, layout: Layout, id: string, of: string | undefined): boolean {
  const test: TestDefinition | undefined = pack.tests.find((one) => one.id === id);
  // An id that no test has is left for the check to name.
  if (!test) return true;
  return testFits(pack, test, layout) && (of === undefined || objectsOf(test, layout).includes(of));
}

/**
 * Document form of any version, checked against the schema only; what the items say of each other is checked by `checkPack`. Throws
 * InputRefused with every schema issue.
 */
export function parsePack(document: unknown): Pack {
  const result = packSchema.safeParse(upgradePack(document));
  if (!result.success) throw new InputRefused(problemsOfSchema(namedIssues(result.error.issues, document), 'pack'));
  return ownNamesOnly(result.data);
}

/**
 * The same value with no names but its own at any depth: words, ids and places of a pack are looked up in its tables, and "constructor"
 * must be as unknown there as any other word nobody wrote. A copy sent to a worker has lost it and is made so anew.
 */
export function ownNamesOnly<T>(value: T): T {
  if (Array.isArray(value)) return value.map((one: unknown) => ownNamesOnly(one)) as T;
  if (typeof value !== 'object' || value === null) return value;
  const bare = Object.create(null) as Record<string, unknown>;
  for (const [key, inner] of Object.entries(value)) bare[key] = ownNamesOnly(inner);
  return bare as T;
}

/** tests.17.minutes says little to the person who wrote the file: name the item instead of its place in the list. */
function namedIssues(
  issues: readonly { path: PropertyKey[]; message: string }[],
  document: unknown,
): { path: PropertyKey[]; message: string }[] {
  return issues.map((issue) => {
    const [list, index, ...rest] = issue.path;
    if (typeof list !== 'string' || typeof index !== 'number') return issue;
    const item = (document as Record<string, { id?: unknown }[] | undefined>)[list]?.[index];
    return typeof item?.id === 'string' ? { ...issue, path: [`${list}/${item.id}`, ...rest] } : issue;
  });
}
