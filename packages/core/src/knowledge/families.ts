/**
 * Families that a shop keeps: added, begun as "like X, but", changed, retired. A family is part of the pack; kept, it makes a new version of the pack. As a file
 * of its own (`veglia-family`, version 1) it is handed on, with the boards that belong to it.
 */
import { z } from 'zod';
import { InputRefused, problemsOfSchema, type Problem } from '../problems.ts';
import { checkBlinkCodes } from './checkBlink.ts';
import { familySchema, type Family, type Layout, type Pack, type TestDefinition } from './schema.ts';

/** A family as a file of its own. */
export const familyFileSchema = z.strictObject({
  format: z.literal('veglia-family'),
  version: z.literal(1),
  family: z.unknown(),
  /** A file of boards (`veglia-boards`), as its own reader takes it. */
  boards: z.unknown().optional(),
});

/** Everything wrong with a family, `where` naming its place; empty where it may be kept. */
export function familyProblems(document: unknown, pack: Pack): { problems: Problem[]; family?: Family } {
  const read = familySchema.safeParse(document);
  if (!read.success) return { problems: problemsOfSchema(read.error.issues, 'family') };
  const family = read.data;
  const problems: Problem[] = [];
  const refused = (code: 'unknown-id' | 'schema', where: string, value: string, expected: string): void => {
    problems.push({ code, where: `family.${where}`, value, expected });
  };
  const layouts = pack.layouts.filter(({ id }) => family.layouts.includes(id));
  for (const id of family.layouts) if (!layouts.some((one) => one.id === id)) refused('unknown-id', 'layouts', id, 'layout');
  const points = new Set(layouts.flatMap((one) => Object.keys(one.points)));
  const seen = new Set<string>();
  for (const [index, rail] of family.rails.entries()) {
    if (!points.has(rail.point)) refused('unknown-id', `rails.${index + 1}.point`, rail.point, 'a point of its layouts');
    if (seen.has(rail.id)) refused('schema', `rails.${index + 1}.id`, rail.id, 'an id of its own');
    seen.add(rail.id);
  }
  if (family.healthy.longestStartSeconds < family.healthy.secondsToPicture)
    refused('schema', 'healthy.longestStartSeconds', String(family.healthy.longestStartSeconds), 'at least the usual seconds to picture');
  if (family.scope?.years && family.scope.years[0] > family.scope.years[1])
    refused('schema', 'scope.years', family.scope.years.join('–'), 'the earlier year first');
  problems.push(...checkBlinkCodes(family.blink, (index) => `family.blink ${index + 1}`, pack));
  return problems.length === 0 ? { problems, family } : { problems };
}

/**
 * The pack with a family added or replaced. What a family of that id blinks stays as it is: its table has changes of its own. Throws
 * InputRefused with every problem.
 */
export function withFamily(pack: Pack, document: unknown): Pack {
  const { problems, family } = familyProblems(document, pack);
  if (!family) throw new InputRefused(problems);
  const known = pack.families.find(({ id }) => id === family.id);
  if (!known) return { ...pack, families: [...pack.families, family] };
  const kept: Family = { ...family, blink: known.blink };
  return { ...pack, families: pack.families.map((one) => (one.id === family.id ? kept : one)) };
}

/** A family that begins as another: what comes with the chassis goes along, what was found out on the other’s own sets doesn’t. */
export function likeFamily(other: Family, own: { readonly id: string; readonly name: string; readonly maker: string }): Family {
  const { id: _id, models: _models, blink: _blink, remotes: _remotes, notes: _notes, scope: _scope, retired: _retired, ...chassis } = other;
  return {
    ...chassis,
    id: own.id,
    name: { en: own.name },
    maker: own.maker,
    models: [],
    blink: [],
    from: other.id,
    source: `like ${other.name.en}; not confirmed on this family yet`,
  };
}

/** Letters and digits only: a plate says "LK 40-2", a note "lk402". */
const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** What of a family decides whether it covers a set. */
export type Covering = Pick<Family, 'id' | 'models'> & {
  readonly scope?:
    | {
        readonly versions?: readonly string[] | undefined;
        readonly years?: readonly number[] | undefined;
        readonly except?: readonly string[] | undefined;
      }
    | undefined;
  readonly retired?: true | undefined;
};

/** What the plate says. */
export interface Plate {
  readonly model?: string | undefined;
  readonly version?: string | undefined;
  readonly year?: number | undefined;
}

/** Whether a family’s own limits leave this set in; what the plate doesn’t say excludes nothing. Spaces, hyphens and capitals don't matter. */
export function withinFamily({ scope }: Pick<Covering, 'scope'>, { model = '', version = '', year }: Plate): boolean {
  const [asModel, own] = [plain(model), plain(version)];
  if (own !== '' && scope?.versions && scope.versions.length > 0 && !scope.versions.some((one) => plain(one) === own)) return false;
  const [first, last] = scope?.years ?? [];
  if (year !== undefined && first !== undefined && last !== undefined && (year < first || year > last)) return false;
  const excepted = [asModel, own, own === '' ? '' : asModel + own].filter((one) => one !== '');
  return !scope?.except?.some((one) => excepted.includes(plain(one)));
}

/** Ids of the families that cover a set by its model. */
export function familiesCovering(families: readonly Covering[], plate: Plate): string[] {
  const wanted = plain(plate.model ?? '');
  if (wanted === '') return [];
  return families
    .filter((one) => !one.retired && one.models.some((model) => plain(model) === wanted) && withinFamily(one, plate))
    .map(({ id }) => id);
}

/** How the panel's halves are fed: a ribbon each, or one with a link; undefined where no ribbon is of one half. A family stands above its layout. */
export function ribbonsOf(layout: Layout | undefined, family: Family | undefined): 'each' | 'link' | undefined {
  const sides = new Set(Object.values(layout?.ribbons ?? {}));
  return sides.size === 0 ? undefined : (family?.ribbons ?? (sides.size === 2 ? 'each' : 'link'));
}

/** Whether a step takes off a ribbon that feeds both halves here, though its layout has one for each: the link is taken off for the far half. */
export function linkInstead(
  test: Pick<TestDefinition, 'do'>,
  of: string | undefined,
  layout: Layout | undefined,
  family: Family | undefined,
): boolean {
  const pulled = test.do.flatMap((step) => ('pull' in step ? step.pull.map((id) => (id === '$of' ? (of ?? id) : id)) : []));
  const ribbons = pulled.filter((id) => layout?.ribbons?.[id] !== undefined);
  return ribbons.length === 1 && ribbonsOf(layout, family) === 'link';
}

/** What a family says for a step: service keys where its menu is asked for, remotes that worked, the jig it takes. */
export function familyHints(test: Pick<TestDefinition, 'do'>, family: Family | undefined): string[] {
  const presses = (key: string): boolean => test.do.some((step) => 'press' in step && step.press === key);
  return [
    ...(presses('service') || presses('pattern') ? (family?.service ?? []).map(({ en }) => en) : []),
    ...(presses('remote') || presses('service') ? (family?.remotes ?? []) : []),
    ...(test.do.some((step) => 'fit' in step && step.fit === 'jig') && family?.jig ? [family.jig] : []),
  ];
}
