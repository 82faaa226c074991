/** What lies where when a harness is pulled, told from the layout's feeds alone. */
import type { Layout } from './schema.ts';

/** Where an assembly lies when a harness is pulled. */
export type CutClass = 'inside' | 'beyond' | 'unrelated';

const mains = 'outside';

function neighbours(layout: Layout, forward: boolean): Map<string, string[]> {
  const next = new Map<string, string[]>(layout.assemblies.map((id) => [id, []]));
  for (const [from, to] of layout.feeds) next.get(forward ? from : to)?.push(forward ? to : from);
  return next;
}

function reach(next: ReadonlyMap<string, readonly string[]>, starts: readonly string[], blocked: ReadonlySet<string>): Set<string> {
  const seen = new Set<string>();
  const queue = starts.filter((id) => !blocked.has(id));
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    if (seen.has(id)) continue;
    seen.add(id);
    for (const other of next.get(id) ?? []) if (!blocked.has(other)) queue.push(other);
  }
  return seen;
}

/**
 * Sorts every node of the layout by what pulling `pulled` does to it:
 * beyond = no longer reached from the mains, and the pulled harness itself; inside = upstream of the cut, still
 * feeding it; unrelated = still connected, but not on the way to the cut.
 */
export function classifyCut(layout: Layout, pulled: readonly string[]): Map<string, CutClass> {
  const blocked = new Set(pulled);
  const alive = reach(neighbours(layout, true), [mains], blocked);
  const upstream = reach(neighbours(layout, false), pulled, new Set());
  return new Map(layout.assemblies.map((id) => [id, !alive.has(id) ? 'beyond' : upstream.has(id) ? 'inside' : 'unrelated']));
}

/** Nodes that no path from the mains reaches: a layout with any is refused. */
export function unreachableNodes(layout: Layout): string[] {
  const alive = reach(neighbours(layout, true), [mains], new Set());
  return layout.assemblies.filter((id) => !alive.has(id));
}

/** True where something feeds itself: inside and beyond would lose their meaning. */
export function hasCycle(layout: Layout): boolean {
  const waiting = new Map(layout.assemblies.map((id) => [id, 0]));
  for (const [, to] of layout.feeds) waiting.set(to, (waiting.get(to) ?? 0) + 1);
  const next = neighbours(layout, true);
  const queue = [...waiting].filter(([, count]) => count === 0).map(([id]) => id);
  let done = 0;
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    done += 1;
    for (const other of next.get(id) ?? []) {
      const left = (waiting.get(other) ?? 0) - 1;
      waiting.set(other, left);
      if (left === 0) queue.push(other);
    }
  }
  return done !== layout.assemblies.length;
}
