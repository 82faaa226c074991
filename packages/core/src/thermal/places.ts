/** Where a warm place lies on the picture of a board, which part that is, and what a good set has there. */

/** Dots from the top left, or shares. */
export type Place = readonly [x: number, y: number];
/** The same place on one picture and on the other. */
export type PlacePair = readonly [from: Place, to: Place];

/** Less than this share of the largest distance across is a line (value of ours). */
const inLine = 0.05;

/**
 * From places on one picture to those on the other, both in dots: with two pairs it may be larger, moved and turned; with three, not in a line, slanted and
 * mirrored as well. Undefined where the pairs don't tell.
 */
export function alignPlaces(pairs: readonly PlacePair[]): ((at: Place) => Place) | undefined {
  const [first, second, third] = pairs;
  if (!first || !second) return undefined;
  const along = minus(second[0], first[0]);
  const far = Math.hypot(...along);
  if (far === 0) return undefined;
  const moved = minus(second[1], first[1]);
  if (third) {
    const across = minus(third[0], first[0]);
    const area = along[0] * across[1] - along[1] * across[0];
    if (Math.abs(area) > inLine * far * Math.hypot(...across)) {
      const movedAcross = minus(third[1], first[1]);
      return (at) => {
        const own = minus(at, first[0]);
        const a = (own[0] * across[1] - own[1] * across[0]) / area;
        const b = (along[0] * own[1] - along[1] * own[0]) / area;
        return [first[1][0] + a * moved[0] + b * movedAcross[0], first[1][1] + a * moved[1] + b * movedAcross[1]];
      };
    }
  }
  // As a product of complex numbers: turned and enlarged at once.
  const square = far * far;
  const [re, im] = [(moved[0] * along[0] + moved[1] * along[1]) / square, (moved[1] * along[0] - moved[0] * along[1]) / square];
  return (at) => {
    const own = minus(at, first[0]);
    return [first[1][0] + re * own[0] - im * own[1], first[1][1] + im * own[0] + re * own[1]];
  };
}
const minus = (a: Place, b: Place): Place => [a[0] - b[0], a[1] - b[1]];

/** A mark as it is looked for: its place as shares of the board's picture, and its rise in a good set, °C. */
export interface WarmMark {
  readonly name: string;
  readonly at: Place;
  readonly warm?: number | undefined;
}
/** A warm place on the board's picture; its rise, °C. */
export interface PlacedSpot {
  readonly at: Place;
  readonly rise: number;
}
/** A warm place by name, and against a good set. */
export interface JudgedSpot {
  readonly name?: string;
  /** Rise of a good set there, °C. */
  readonly good?: number;
  readonly against: 'as-good' | 'warmer' | 'cooler' | 'unknown';
}

/** Share of the board's picture within which a part is the one (value of ours: a part and what it warms around it). */
const near = 0.05;
/** Within this factor of a good set nothing is said (value of ours: rooms, loads and cameras differ). */
const alike = 1.8;

/** `cold`: marks that warm in a good set, and are near none of the places. */
export function judgeWarmth(
  spots: readonly PlacedSpot[],
  marks: readonly WarmMark[],
): { readonly spots: readonly JudgedSpot[]; readonly cold: readonly string[] } {
  const found = new Set<string>();
  const judged = spots.map(({ at, rise }): JudgedSpot => {
    const [closest] = marks
      .map((mark) => ({ mark, far: Math.hypot(...minus(mark.at, at)) }))
      .filter(({ far }) => far <= near)
      .sort((a, b) => a.far - b.far);
    if (!closest) return { against: 'unknown' };
    const { name, warm } = closest.mark;
    found.add(name);
    if (warm === undefined) return { name, against: 'unknown' };
    const against = rise > warm * alike ? 'warmer' : rise < warm / alike ? 'cooler' : 'as-good';
    return { name, good: warm, against };
  });
  return { spots: judged, cold: marks.filter(({ name, warm }) => warm !== undefined && !found.has(name)).map(({ name }) => name) };
}
