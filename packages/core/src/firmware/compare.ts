/** Two dumps side by side, read once in pieces of equal length. */
import { movedBetween, WindowSampler, type Moved } from './moved.ts';

/** What two dumps have against each other. */
export const comparisonFindings = [
  'equal',
  'sizes-differ',
  'first-erased',
  'second-erased',
  'first-zero',
  'second-zero',
  'only-rose',
  'only-fell',
  'other-content',
] as const;
/** A place where two differ. `empty`: one of them holds nothing there, each of its bytes FF or 00. */
export interface DifferingPlace {
  readonly from: number;
  readonly to: number;
  readonly bytes: number;
  readonly empty?: true;
}
/** A comparison; places in bytes from the start, `to` behind the last. */
export interface DumpComparison {
  readonly sizes: readonly [number, number];
  /** First byte that differs. */
  readonly first?: number;
  readonly differingBytes: number;
  /** Bits that are 0 in the first and 1 in the second, and the other way round. */
  readonly rose: number;
  readonly fell: number;
  readonly places: readonly DifferingPlace[];
  /** Places beyond `mostPlaces`, not listed. */
  readonly morePlaces: number;
  /** What stands elsewhere in the second. */
  readonly moved: readonly Moved[];
  readonly findings: readonly (typeof comparisonFindings)[number][];
}

/** Differences so close, in bytes, are one place: a line of a hex view. */
const together = 16;
/** As many places are listed. */
export const mostPlaces = 1000;

const bitsOf = Uint8Array.from({ length: 256 }, (_, value) => {
  let bits = 0;
  for (let left = value; left > 0; left >>= 1) bits += left & 1;
  return bits;
});

/** While it goes on: the one byte that each side had there so far, where that is FF or 00. */
interface OpenPlace {
  from: number;
  to: number;
  bytes: number;
  x: number | undefined;
  y: number | undefined;
}

/** Compares two dumps: add pieces in order, of one length but for the last, then `end`. */
export class DumpComparer {
  private readonly sizes: [number, number] = [0, 0];
  private first: number | undefined;
  private differing = 0;
  private rose = 0;
  private fell = 0;
  private readonly places: OpenPlace[] = [];
  private more = 0;
  private last = Number.NEGATIVE_INFINITY;
  private readonly samplers = [new WindowSampler(), new WindowSampler()] as const;
  private readonly all = { firstErased: true, secondErased: true, firstZero: true, secondZero: true };

  add(a: Uint8Array, b: Uint8Array): void {
    const at = Math.max(...this.sizes);
    const shared = Math.min(a.length, b.length);
    for (let index = 0; index < shared; index += 1) {
      const [x, y] = [a[index] ?? 0, b[index] ?? 0];
      if (x === y) continue;
      this.rose += bitsOf[~x & y & 0xff] ?? 0;
      this.fell += bitsOf[x & ~y & 0xff] ?? 0;
      this.differ(at + index, at + index + 1, x, y);
    }
    const longest = Math.max(a.length, b.length);
    if (longest > shared) this.differ(at + shared, at + longest, 0xff, 0xff);
    this.sizes[0] += a.length;
    this.sizes[1] += b.length;
    this.samplers[0].add(a);
    this.samplers[1].add(b);
    this.look(a, 'firstErased', 'firstZero');
    this.look(b, 'secondErased', 'secondZero');
  }

  /** Bytes that are known to be equal, and so were not read: what they are is not known. */
  skip(bytes: number): void {
    this.sizes[0] += bytes;
    this.sizes[1] += bytes;
    for (const one of this.samplers) one.skip(bytes);
    if (bytes > 0) Object.assign(this.all, { firstErased: false, secondErased: false, firstZero: false, secondZero: false });
  }

  private differ(from: number, to: number, x: number, y: number): void {
    this.first ??= from;
    this.differing += to - from;
    const open = this.places.at(-1);
    if (open && this.more === 0 && from - this.last < together) {
      open.to = to;
      open.bytes += to - from;
      if (x !== open.x || (x !== 0xff && x !== 0)) open.x = undefined;
      if (y !== open.y || (y !== 0xff && y !== 0)) open.y = undefined;
    } else if (from - this.last >= together && this.places.length < mostPlaces) {
      const only = (byte: number): number | undefined => (byte === 0xff || byte === 0 ? byte : undefined);
      this.places.push({ from, to, bytes: to - from, x: only(x), y: only(y) });
    } else if (from - this.last >= together) this.more += 1;
    this.last = to;
  }

  private look(piece: Uint8Array, erased: keyof DumpComparer['all'], zero: keyof DumpComparer['all']): void {
    if (this.all[erased]) this.all[erased] = piece.every((byte) => byte === 0xff);
    if (this.all[zero]) this.all[zero] = piece.every((byte) => byte === 0);
  }

  end(): DumpComparison {
    return {
      sizes: [...this.sizes],
      ...(this.first === undefined ? {} : { first: this.first }),
      differingBytes: this.differing,
      rose: this.rose,
      fell: this.fell,
      places: this.places.map(({ x, y, ...place }) => ({
        ...place,
        ...(x === undefined && y === undefined ? {} : { empty: true as const }),
      })),
      morePlaces: this.more,
      moved: movedBetween(...this.samplers),
      findings: [this.finding()],
    };
  }

  private finding(): (typeof comparisonFindings)[number] {
    if (this.differing === 0) return 'equal';
    if (this.sizes[0] !== this.sizes[1]) return 'sizes-differ';
    const { firstErased, secondErased, firstZero, secondZero } = this.all;
    // Of an empty dump nothing can be said by its bits.
    if (firstErased || secondErased) return firstErased ? 'first-erased' : 'second-erased';
    if ((firstZero || secondZero) && this.differing * 2 > this.sizes[0]) return firstZero ? 'first-zero' : 'second-zero';
    if (this.fell === 0) return 'only-rose';
    return this.rose === 0 ? 'only-fell' : 'other-content';
  }
}
