/**
 * The spot of a picture where the light is: how bright it is there, which colour, and where it went when the camera moved a little.
 * Pictures are RGBA, 8 bits a channel, row by row, as a canvas gives them.
 */
import type { LightColour } from './words.ts';

/** A picture: four bytes a pixel (red, green, blue, alpha), row by row. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: ArrayLike<number>;
}

/** A place in a picture, pixels from its upper left corner. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** The light of a spot in one picture. */
export interface SpotLight {
  /** Mean over the spot, linear in light, 0 to 1. */
  readonly red: number;
  readonly green: number;
  readonly blue: number;
  readonly level: number;
  /** Share of its pixels that are as bright as the camera can tell. */
  readonly saturated: number;
}

/** sRGB's curve (IEC 61966-2-1), for each of 256 steps. */
const linear = Float64Array.from({ length: 256 }, (_, step) => {
  const value = step / 255;
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
});

/** The light within `radius` pixels of the spot; what lies outside the picture doesn't count. */
export function lightAt({ width, height, data }: Picture, { x, y }: Spot, radius: number): SpotLight {
  let [red, green, blue, count, full] = [0, 0, 0, 0, 0];
  for (let row = Math.max(0, Math.round(y - radius)); row <= Math.min(height - 1, Math.round(y + radius)); row++) {
    for (let column = Math.max(0, Math.round(x - radius)); column <= Math.min(width - 1, Math.round(x + radius)); column++) {
      if ((column - x) ** 2 + (row - y) ** 2 > radius * radius) continue;
      const at = (row * width + column) * 4;
      const [r, g, b] = [data[at] ?? 0, data[at + 1] ?? 0, data[at + 2] ?? 0];
      red += linear[r] ?? 0;
      green += linear[g] ?? 0;
      blue += linear[b] ?? 0;
      count += 1;
      full += Number(Math.max(r, g, b) >= 254);
    }
  }
  const n = Math.max(1, count);
  return { red: red / n, green: green / n, blue: blue / n, level: (red + green + blue) / (3 * n), saturated: full / n };
}

/**
 * Where the spot of `before` is in `now`: the shift of up to `reach` pixels whose surroundings look most alike. The spot itself doesn't
 * count, it blinks; nor does a picture that got brighter as a whole. Stays where nothing in the surroundings holds it.
 */
export function followSpot(before: Picture, now: Picture, spot: Spot, radius: number, reach: number): Spot {
  const ring = offsets(radius);
  const grey = ({ width, height, data }: Picture, x: number, y: number): number | undefined => {
    if (x < 0 || y < 0 || x >= width || y >= height) return undefined;
    const at = (y * width + x) * 4;
    return (data[at] ?? 0) + (data[at + 1] ?? 0) + (data[at + 2] ?? 0);
  };
  const [x0, y0] = [Math.round(spot.x), Math.round(spot.y)];
  const was = ring.map(([dx, dy]) => grey(before, x0 + dx, y0 + dy));
  const difference = (shiftX: number, shiftY: number): number => {
    const pairs: [number, number][] = [];
    ring.forEach(([dx, dy], index) => {
      const a = was[index];
      const b = grey(now, x0 + dx + shiftX, y0 + dy + shiftY);
      if (a !== undefined && b !== undefined) pairs.push([a, b]);
    });
    if (pairs.length < ring.length / 2) return Number.POSITIVE_INFINITY;
    const brighter = pairs.reduce((sum, [a, b]) => sum + b - a, 0) / pairs.length;
    return pairs.reduce((sum, [a, b]) => sum + Math.abs(b - a - brighter), 0) / pairs.length;
  };
  const stay = difference(0, 0);
  let best = { x: 0, y: 0, difference: stay };
  for (let y = -reach; y <= reach; y++) {
    for (let x = -reach; x <= reach; x++) {
      const one = difference(x, y);
      if (one < best.difference) best = { x, y, difference: one };
    }
  }
  // A shift must explain much: else the light itself, or noise, would drag the spot along.
  return best.difference < 0.6 * stay && stay - best.difference > 3 ? { x: spot.x + best.x, y: spot.y + best.y } : spot;
}

/** A ring about the spot, every third pixel: from well outside its glow to three times its size. */
function offsets(radius: number): [number, number][] {
  const found: [number, number][] = [];
  const outer = Math.round(radius * 3.5);
  for (let dy = -outer; dy <= outer; dy += 3) {
    for (let dx = -outer; dx <= outer; dx += 3) {
      const distance = Math.hypot(dx, dy);
      if (distance > radius * 1.6 && distance <= outer) found.push([dx, dy]);
    }
  }
  return found;
}

/** Hue in degrees where red passes into amber, amber into green and so on; values of ours for indicator lights. */
const hues: readonly (readonly [number, LightColour])[] = [
  [18, 'red'],
  [62, 'amber'],
  [175, 'green'],
  [275, 'blue'],
  [361, 'red'],
];

/** The colour of each sample, by what it adds to the darkest tenth; undefined for those that add little. */
export function coloursOfSpot(lights: readonly SpotLight[]): (LightColour | undefined)[] {
  const low = (channel: 'red' | 'green' | 'blue'): number => {
    const sorted = lights.map((one) => one[channel]).sort((a, b) => a - b);
    return sorted[Math.floor((sorted.length - 1) * 0.1)] ?? 0;
  };
  const floor = { red: low('red'), green: low('green'), blue: low('blue') };
  const added = lights.map(({ red, green, blue }) => [red - floor.red, green - floor.green, blue - floor.blue] as const);
  const strength = added.map(([r, g, b]) => r + g + b);
  const strongest = [...strength].sort((a, b) => b - a)[Math.floor(strength.length * 0.02)] ?? 0;
  return added.map(([r, g, b], index) => {
    if (strongest <= 0 || (strength[index] ?? 0) < 0.35 * strongest) return undefined;
    const most = Math.max(r, g, b);
    const chroma = most - Math.min(r, g, b);
    if (chroma < 0.3 * most) return 'white';
    const sixth = most === r ? ((g - b) / chroma + 6) % 6 : most === g ? (b - r) / chroma + 2 : (r - g) / chroma + 4;
    return hues.find(([upTo]) => sixth * 60 < upTo)?.[1];
  });
}
