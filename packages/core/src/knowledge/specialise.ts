/**
 * Layouts that share parts: a layout's file may name another one it is made from, and says what differs. Folder form only;
 * the assembled document holds every layout whole.
 *
 *   from      the layout it is made from (which may itself be made from another)
 *   abstract  only to be made from; not in the assembled document
 *   without   nodes that are not there: their points, wires, proofs, list entries and feeds go with them
 *   cutFeeds  feeds that are not there although both ends are
 *   the rest  assemblies and feeds are added; access, points, proof and plan stand above the base's, entry by entry
 */
import type { Problem } from '../problems.ts';

type Item = Record<string, unknown> & { id?: unknown; from?: unknown };
type Table = Record<string, unknown>;
type Pair = readonly [string, string];

const table = (value: unknown): Table => (typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Table) : {});
const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? (value as unknown[]) : []);
const word = (value: unknown): string => (typeof value === 'string' ? value : '');
const samePair = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function without(entries: Table, gone: ReadonlySet<string>, on?: (value: unknown) => unknown): Table {
  return Object.fromEntries(Object.entries(entries).filter(([id, value]) => !gone.has(id) && !gone.has(word(on?.(value)))));
}

function specialise(base: Item, own: Item): Item {
  const gone = new Set(list(own.without).map(String));
  const cut = list(own.cutFeeds);
  const points = { ...without(table(base.points), gone, (point) => table(point).on), ...table(own.points) };
  const plan = table(base.plan);
  const ownPlan = table(own.plan);
  const { from: _from, without: _without, cutFeeds: _cutFeeds, ...rest } = own;
  const { abstract: _abstract, ...kept } = base;
  return {
    ...kept,
    ...rest,
    assemblies: [...list(base.assemblies).filter((id) => !gone.has(String(id))), ...list(own.assemblies)],
    feeds: [
      ...list(base.feeds).filter((pair) => !(pair as Pair).some((id) => gone.has(id)) && !cut.some((other) => samePair(pair, other))),
      ...list(own.feeds),
    ],
    access: { ...without(table(base.access), gone), ...table(own.access) },
    points,
    ...(base.ribbons === undefined ? {} : { ribbons: without(table(base.ribbons), gone) }),
    merges: own.merges ?? base.merges,
    showsAs: own.showsAs ?? base.showsAs,
    fixedList: own.fixedList ?? list(base.fixedList).filter((entry) => !gone.has(word(table(entry).of))),
    proof: { ...prunedProofs(without(table(base.proof), gone), gone), ...prunedProofs(table(own.proof), gone) },
    plan: {
      ...plan,
      ...ownPlan,
      places: { ...without(table(plan.places), gone), ...table(ownPlan.places) },
      wires: { ...without(table(plan.wires), gone), ...table(ownPlan.wires) },
    },
  };
}

/** A cable that isn't there needs no reseating: such items leave the proofs. */
function prunedProofs(proofs: Table, gone: ReadonlySet<string>): Table {
  return Object.fromEntries(
    Object.entries(proofs).map(([id, proof]) => {
      const anyOf = list(table(proof).anyOf)
        .map((way) => list(way).filter((item) => !gone.has(word(table(item).of))))
        .filter((way) => way.length > 0);
      return [id, { ...table(proof), anyOf }];
    }),
  );
}

/** Layouts as written -> layouts whole. A `from` that leads nowhere or in a circle is a problem. */
export function wholeLayouts(items: readonly unknown[], problems: Problem[]): unknown[] {
  const byId = new Map(items.map((item) => [word(table(item).id), table(item) as Item]));
  const whole = (item: Item, seen: readonly string[]): Item | undefined => {
    if (item.from === undefined) return item;
    const base = byId.get(word(item.from));
    if (!base || seen.includes(word(item.from))) {
      problems.push({ code: 'unknown-id', where: `layouts/${word(item.id)}.from`, value: word(item.from), expected: 'layout' });
      return undefined;
    }
    const made = whole(base, [...seen, word(item.id)]);
    return made && specialise(made, item);
  };
  return items.filter((item) => table(item).abstract !== true).map((item) => whole(table(item) as Item, [word(table(item).id)]) ?? item);
}

/**
 * Once all layouts are whole and the tests are known, list entries and ways to a proof that name a test this layout doesn't
 * have are left out of what was inherited.
 */
export function keepWhatApplies(layout: Item, has: (test: string, of: string | undefined) => boolean): Item {
  const applies = (item: unknown): boolean => {
    const { test, of } = table(item);
    return test === undefined || has(word(test), of === undefined ? undefined : word(of));
  };
  return {
    ...layout,
    fixedList: list(layout.fixedList).filter(applies),
    proof: Object.fromEntries(
      Object.entries(table(layout.proof)).map(([id, proof]) => [
        id,
        { ...table(proof), anyOf: list(table(proof).anyOf).filter((way) => list(way).every(applies)) },
      ]),
    ),
  };
}
