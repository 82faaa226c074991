/**
 * Parts taken off a board, as a bench expects them to be kept in view: written down before the rule. Common practice, no source.
 */
export interface LiftedCase {
  readonly name: string;
  /** What happens, in order: a part off, back on, a repair, an answer. */
  readonly events: readonly (
    | { readonly off: string; readonly what?: 'part' | 'link'; readonly on?: string }
    | { readonly back: string }
    | { readonly repair: string; readonly result?: 'cured' | 'unchanged' | 'not-tried' }
    | { readonly test: string; readonly outcome: string }
  )[];
  /** What is then still off. */
  readonly off: readonly string[];
}

export const liftedCases: readonly LiftedCase[] = [
  { name: 'a capacitor taken off stays off', events: [{ off: 'C412' }], off: ['C412'] },
  { name: 'and is on again once that is recorded', events: [{ off: 'C412' }, { back: 'C412' }], off: [] },
  { name: 'the same part twice is one part', events: [{ off: 'C412' }, { off: 'C412' }], off: ['C412'] },
  { name: 'two parts are two', events: [{ off: 'C412' }, { off: 'C413' }, { back: 'C412' }], off: ['C413'] },
  {
    name: 'another board goes with all that was taken off it',
    events: [{ off: 'R7', on: 'tcon' }, { off: 'Q3', on: 'main' }, { repair: 'replace.tcon' }],
    off: ['Q3'],
  },
  {
    name: 'a board that wasn’t fitted takes nothing along',
    events: [
      { off: 'R7', on: 'tcon' },
      { repair: 'replace.tcon', result: 'not-tried' },
    ],
    off: ['R7'],
  },
  {
    name: 'the walk takes the capacitor off',
    events: [{ test: 'bias.walk', outcome: 'short-gone' }],
    off: ['bias-capacitor'],
  },
  { name: 'found no short: nothing was taken off', events: [{ test: 'bias.walk', outcome: 'no-short' }], off: [] },
  { name: 'not possible: nothing was taken off', events: [{ test: 'bias.walk', outcome: 'not-possible' }], off: [] },
  {
    name: 'a new one fitted ends it',
    events: [{ test: 'bias.walk', outcome: 'short-gone' }, { repair: 'bias.capacitor' }],
    off: [],
  },
];

/** A lifted supply link cuts like a plug out; a part taken off a rail that works without it doesn't. */
export const liftedVoids: readonly { readonly name: string; readonly what: 'part' | 'link'; readonly void: boolean }[] = [
  { name: 'a supply link is off: rails behind it are missing because of it', what: 'link', void: true },
  { name: 'a decoupling capacitor is off: the rails read as ever', what: 'part', void: false },
];
