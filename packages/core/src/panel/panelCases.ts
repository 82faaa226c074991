/** What is expected of the panel's arithmetic: published timings (values from memory of VESA DMT and CTA-861), trade practice, and exact counting. */

/** Pixel clocks, Hz. */
export const clockCases: readonly {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly hertz: number;
  readonly clock: number;
}[] = [
  { name: 'CTA-861 VIC 4', width: 1280, height: 720, hertz: 60, clock: 74.25e6 },
  { name: 'VESA DMT 10h', width: 1024, height: 768, hertz: 60, clock: 65e6 },
  { name: 'VESA DMT 51h', width: 1366, height: 768, hertz: 60, clock: 85.5e6 },
  { name: 'CTA-861 VIC 16', width: 1920, height: 1080, hertz: 60, clock: 148.5e6 },
  { name: 'CTA-861 VIC 31', width: 1920, height: 1080, hertz: 50, clock: 148.5e6 },
  { name: 'CTA-861 VIC 63', width: 1920, height: 1080, hertz: 120, clock: 297e6 },
  { name: 'CTA-861 VIC 97', width: 3840, height: 2160, hertz: 60, clock: 594e6 },
  { name: 'CTA-861 VIC 118', width: 3840, height: 2160, hertz: 120, clock: 1188e6 },
  { name: 'CTA-861 VIC 199', width: 7680, height: 4320, hertz: 60, clock: 2376e6 },
];

/** What runs between main and T-con. */
export const linkCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly pairs?: number;
  readonly links?: number;
  readonly lanes?: number;
  readonly says?: readonly string[];
}[] = [
  {
    name: 'an HD panel is a single link: four pairs and a clock',
    input: { width: '1366', height: '768', hertz: '60', bits: '8' },
    pairs: 5,
    links: 1,
  },
  {
    name: 'a full HD panel at 60 Hz takes two links',
    input: { width: '1920', height: '1080', hertz: '60', bits: '8' },
    pairs: 10,
    links: 2,
  },
  { name: 'and at ten bits one pair more in each', input: { width: '1920', height: '1080', hertz: '60', bits: '10' }, pairs: 12, links: 2 },
  { name: 'full HD at 120 Hz takes four', input: { width: '1920', height: '1080', hertz: '120', bits: '8' }, links: 4 },
  { name: 'six bits have three pairs and a clock', input: { width: '1366', height: '768', hertz: '60', bits: '6' }, pairs: 4, links: 1 },
  { name: 'UHD at 60 Hz by lanes', input: { width: '3840', height: '2160', hertz: '60', bits: '10' }, lanes: 8 },
  { name: 'UHD at 120 Hz', input: { width: '3840', height: '2160', hertz: '120', bits: '10' }, lanes: 16 },
  {
    name: 'five pairs counted on a full HD image: it does not fit',
    input: { width: '1920', height: '1080', hertz: '60', bits: '8', countedPairs: '5' },
    says: ['pairs-too-few'],
  },
  {
    name: 'ten pairs counted: full HD',
    input: { width: '1920', height: '1080', hertz: '60', bits: '8', countedPairs: '10' },
    says: ['pairs-agree'],
  },
];

/** A bar on the picture. */
export const barCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly drivers?: number;
  readonly barPercent?: number;
}[] = [
  {
    name: 'plasma, full HD: 5760 columns over 384 an output chip',
    input: { columns: '1920', perPixel: '3', perDriver: '384' },
    drivers: 15,
    barPercent: 6.7,
  },
  { name: 'LCD, eight films counted', input: { drivers: '8' }, drivers: 8, barPercent: 12.5 },
];

/**
 * Contact masking: expected trials, one bad 85 %, two 12 %, three 3 %; from programs outside this project. `optimum` is exact over all trials, `split` is
 * halving with the rest tried after a hit.
 */
export const maskFigures = [
  { lines: 8, optimum: 4.22, split: 4.41 },
  { lines: 16, optimum: 5.22, split: 5.66 },
] as const;
