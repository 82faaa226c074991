/** Another capacitor in the place of one that failed (common practice, no source): what must be the same, what may be more. */

/** What the part does. The last four take only the same class and value. */
export const capacitorJobs = ['smoothing', 'mains-x', 'mains-y', 'resonant', 'timing'] as const;
/** One of `capacitorJobs`. */
export type CapacitorJob = (typeof capacitorJobs)[number];

/** Farads, volts, °C, Ω, millimetres as metres; what isn’t known is left out. */
export interface CapacitorData {
  readonly farads: number;
  readonly volts: number;
  readonly celsius?: number | undefined;
  readonly ohms?: number | undefined;
  readonly amps?: number | undefined;
  readonly tall?: number | undefined;
  readonly wide?: number | undefined;
  readonly pitch?: number | undefined;
}

/** Why it doesn’t fit, or might not. */
export const substituteReasons = [
  'fewer-farads',
  'much-more-farads',
  'fewer-volts',
  'cooler-rated',
  'more-esr',
  'less-ripple',
  'too-tall',
  'too-wide',
  'other-pitch',
  'same-value-only',
  'same-class-only',
] as const;
/** One of `substituteReasons`. */
export type SubstituteReason = (typeof substituteReasons)[number];

/** More than so much above the old one loads the supply's start (common practice, no source). */
const mostMore = 1.5;
/** Two values so near are the same marked value, share. */
const sameValue = 0.01;
/** Pins bend so far, metres (value of ours). */
const pitchSlack = 0.0006;

/** `doubt`: only what the table can’t see is left to be looked at. */
export function judgeSubstitute(
  job: CapacitorJob,
  old: CapacitorData,
  next: CapacitorData,
): { readonly fits: 'yes' | 'no' | 'doubt'; readonly no: readonly SubstituteReason[]; readonly doubt: readonly SubstituteReason[] } {
  const no: SubstituteReason[] = [];
  const doubt: SubstituteReason[] = [];
  const above = (what: 'ohms' | 'tall' | 'wide'): boolean =>
    old[what] !== undefined && next[what] !== undefined && next[what] > old[what] * (1 + sameValue);
  const below = (what: 'celsius' | 'amps'): boolean => old[what] !== undefined && next[what] !== undefined && next[what] < old[what];
  const ratio = next.farads / old.farads;
  if (job !== 'smoothing') {
    if (Math.abs(ratio - 1) > sameValue) no.push('same-value-only');
    doubt.push('same-class-only');
  } else if (ratio < 1 - sameValue) no.push('fewer-farads');
  else if (ratio > mostMore) doubt.push('much-more-farads');
  if (next.volts < old.volts) no.push('fewer-volts');
  if (below('celsius')) no.push('cooler-rated');
  if (above('ohms')) no.push('more-esr');
  if (below('amps')) no.push('less-ripple');
  if (above('tall')) no.push('too-tall');
  if (above('wide')) no.push('too-wide');
  if (old.pitch !== undefined && next.pitch !== undefined && Math.abs(old.pitch - next.pitch) > pitchSlack) no.push('other-pitch');
  return { fits: no.length > 0 ? 'no' : doubt.length > 0 ? 'doubt' : 'yes', no, doubt };
}
