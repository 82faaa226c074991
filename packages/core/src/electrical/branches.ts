/** How the capacitors of a rail hang together: one behind the other, and in branches. */

/** Capacitors in a row, or for each (index from 0) the one before it on the way it hangs on; -1: the first. That one always has a lower index. */
export type Rail = number | readonly number[];

/** For each capacitor the one it hangs on; -1: the first. */
export const hangsOn = (rail: Rail): readonly number[] =>
  typeof rail === 'number' ? Array.from({ length: rail }, (_, at) => at - 1) : rail;

/** For each capacitor those that hang on it. */
export function hangingOn(on: readonly number[]): readonly (readonly number[])[] {
  const all: number[][] = on.map(() => []);
  for (const [at, upon] of on.entries()) all[upon]?.push(at);
  return all;
}

/**
 * "3: 7-9; 4: 10": capacitors 7 to 9, numbered from 1, hang one behind the other on capacitor 3, and 10 on 4. All others are the row. Throws RangeError, naming
 * what can’t be: a branch that isn’t on the rail, hangs on a higher number or on itself, or shares a capacitor with another.
 */
export function railWithBranches(capacitors: number, text: string): readonly number[] {
  const on = new Array<number | undefined>(capacitors).fill(undefined);
  const branches = text
    .split(/[;\n]+/)
    .map((one) => one.trim())
    .filter((one) => one !== '');
  for (const one of branches) {
    const match = /^(\d{1,3})\s*[:=]\s*(\d{1,3})(?:\s*(?:-|–|to)\s*(\d{1,3}))?$/.exec(one);
    const [at, from, to] = [Number(match?.[1]), Number(match?.[2]), Number(match?.[3] ?? match?.[2])];
    if (!match || at < 1 || at >= from || from > to || to > capacitors) throw new RangeError(one);
    for (let number = from; number <= to; number += 1) {
      if (on[number - 1] !== undefined) throw new RangeError(one);
      on[number - 1] = number === from ? at - 1 : number - 2;
    }
  }
  // The row goes on over the numbers of a branch.
  let before = -1;
  return on.map((upon, at) => {
    if (upon !== undefined) return upon;
    const here = before;
    before = at;
    return here;
  });
}

/** As `railWithBranches` reads it; empty for a row. */
export function branchesText(on: readonly number[]): string {
  const pieces: { readonly upon: number; readonly from: number; to: number }[] = [];
  let lastOfRow = -1;
  for (const [at, upon] of on.entries()) {
    const piece = pieces.at(-1);
    if (upon === lastOfRow) lastOfRow = at;
    else if (piece && piece.to === at - 1 && upon === piece.to) piece.to = at;
    else pieces.push({ upon, from: at, to: at });
  }
  return pieces.map(({ upon, from, to }) => `${upon + 1}: ${from + 1}${to === from ? '' : `-${to + 1}`}`).join('; ');
}
