/** What runs between main and T-con for a picture: pixel clock, LVDS links and pairs, V-by-One lanes; and the driver that a bar is. */

/** Published timings: VESA DMT and CTA-861 (values from memory). Width, height, Hz, pixel clock in Hz. */
const published: readonly (readonly [number, number, number, number])[] = [
  [1024, 768, 60, 65e6],
  [1280, 720, 50, 74.25e6],
  [1280, 720, 60, 74.25e6],
  [1280, 1024, 60, 108e6],
  [1366, 768, 60, 85.5e6],
  [1920, 1080, 50, 148.5e6],
  [1920, 1080, 60, 148.5e6],
  [1920, 1080, 100, 297e6],
  [1920, 1080, 120, 297e6],
  [3840, 2160, 50, 594e6],
  [3840, 2160, 60, 594e6],
  [3840, 2160, 100, 1188e6],
  [3840, 2160, 120, 1188e6],
  [7680, 4320, 50, 2376e6],
  [7680, 4320, 60, 2376e6],
];
/** For a timing that isn't published: blanking of VESA's reduced timing, 160 columns and some 2.5 % of the lines (from memory). */
const blankColumns = 160;
const blankLines = 1.025;

/** Hz; `estimated` where no published timing is that one. */
export function pixelClock(
  width: number,
  height: number,
  hertz: number,
): { readonly hertz: number; readonly source: 'published' | 'estimated' } {
  const found = published.find(([w, h, rate]) => w === width && h === height && rate === Math.round(hertz));
  if (found) return { hertz: found[3], source: 'published' };
  return { hertz: (width + blankColumns) * height * blankLines * hertz, source: 'estimated' };
}

/** Bits of each colour. */
export const colourBits = [6, 8, 10] as const;
/** Data pairs of one link beside its clock: seven bits a clock each (LVDS as flat panels use it; from memory). */
const dataPairs: Readonly<Record<number, number>> = { 6: 3, 8: 4, 10: 5 };
/** What one link carries at most, Hz of pixel clock (common practice, no source). */
const linkHertz = 90e6;
/** More are not built (common practice, no source). */
const mostLinks = 4;
/** V-by-One HS: 3.75 Gbit/s a lane, of which eight bits in ten are data; pixels take 3 or 4 bytes (from memory). */
const laneBits = 3.75e9 * 0.8;

/** What a panel needs. */
export interface PictureLink {
  readonly clock: number;
  readonly source: 'published' | 'estimated';
  /** Left out where no number of links carries it. */
  readonly lvds?: { readonly links: number; readonly pairs: number };
  readonly lanes: number;
}

const power = (least: number): number => 2 ** Math.ceil(Math.log2(Math.max(least, 1)));

/** Columns, lines, Hz, and bits of each colour. */
export function pictureLink(width: number, height: number, hertz: number, bits: (typeof colourBits)[number]): PictureLink {
  const { hertz: clock, source } = pixelClock(width, height, hertz);
  const links = power(clock / linkHertz);
  const lanes = power(clock / (laneBits / (bits === 10 ? 32 : 24)));
  const pairs = links * ((dataPairs[bits] ?? 0) + 1);
  return { clock, source, ...(links > mostLinks ? {} : { lvds: { links, pairs } }), lanes };
}

/** Column drivers from columns of pixels, colours in each, and outputs of a driver. */
export const driverCount = (columns: number, perPixel: number, perDriver: number): number => Math.ceil((columns * perPixel) / perDriver);
