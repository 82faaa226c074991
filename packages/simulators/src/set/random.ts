/** Seeded randomness: mulberry32, a public-domain 32-bit generator; the same seed gives the same set on every machine. */
export type Random = () => number;

/** Numbers from 0 to below 1, the same for the same seed. */
export function randomFrom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** A number of its own for each word, so that one more draw in one place changes nothing elsewhere. */
export function seedOf(seed: number, word: string): number {
  let hash = (2_166_136_261 ^ seed) >>> 0;
  for (let index = 0; index < word.length; index += 1) hash = Math.imul(hash ^ word.charCodeAt(index), 16_777_619) >>> 0;
  return hash;
}

/** A number between two bounds. */
export const within = (random: Random, least: number, most: number): number => least + (most - least) * random();
/** True in a share `p` of the cases. */
export const chance = (random: Random, p: number): boolean => random() < p;
/** One of the items, each as likely. */
export function pick<T>(random: Random, items: readonly [T, ...T[]]): T {
  return items[Math.floor(random() * items.length)] ?? items[0];
}
