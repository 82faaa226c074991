/** What fits a set as a technician would say it before opening the parcel: written before the rule (common practice, no source). */
import type { PartWanted, StockItemInput } from './stock.ts';

const power: PartWanted = { assembly: 'power', number: 'PW-48/A', revision: '1.2', panel: 'VL43-A1', model: 'QK3-50' };
const item = (change: Partial<StockItemInput>): StockItemInput => ({
  id: '0193a000-0000-4000-8000-0000000000c1',
  what: 'board',
  number: 'PW-48/A',
  assembly: 'power',
  condition: 'pulled',
  ...change,
});

/** One item against what is wanted. */
export interface MatchCase {
  readonly name: string;
  readonly wanted: PartWanted;
  readonly item: StockItemInput;
  /** Null: it is no answer to what is wanted. */
  readonly fit: 'same' | 'supersedes' | 'needs-setting' | 'needs-image' | 'listed' | 'does-not-fit' | null;
  readonly doubts?: readonly ('other-revision' | 'other-panel' | 'untested' | 'print-unseen' | 'size-unknown')[];
}
/** One item against what is wanted. */
export const matchCases: readonly MatchCase[] = [
  { name: 'the number on the board', wanted: power, item: item({}), fit: 'same' },
  { name: 'spelled with other dashes and blanks', wanted: power, item: item({ number: 'pw 48-a' }), fit: 'same' },
  { name: 'another letter at the end is another board', wanted: power, item: item({ number: 'PW-48/B' }), fit: null },
  { name: 'another assembly with a like number', wanted: power, item: item({ assembly: 'tcon' }), fit: null },
  {
    name: 'same number, other revision: compare before power',
    wanted: power,
    item: item({ revision: '2.0' }),
    fit: 'same',
    doubts: ['other-revision'],
  },
  {
    name: 'a revision nobody wrote down is no other one',
    wanted: { ...power, revision: undefined },
    item: item({ revision: '2.0' }),
    fit: 'same',
  },
  {
    name: 'a later number that replaces it',
    wanted: power,
    item: item({ number: 'PW-51', fits: [{ number: 'PW-48A', how: 'supersedes' }] }),
    fit: 'supersedes',
  },
  {
    name: 'listed for the model only: a hope until the print matches',
    wanted: power,
    item: item({ number: 'PW-51', fits: [{ model: 'QK3-50', how: 'same' }] }),
    fit: 'listed',
    doubts: ['print-unseen'],
  },
  {
    name: 'somebody found out that it does not fit, whatever the number says',
    wanted: power,
    item: item({ fits: [{ model: 'QK3-50', how: 'does-not-fit' }] }),
    fit: 'does-not-fit',
  },
  {
    name: 'a main board out of a set with another panel wants another image',
    wanted: { assembly: 'main', number: 'MB-7', panel: 'VL43-A1' },
    item: item({ assembly: 'main', number: 'MB-7', panel: 'VL43-C2' }),
    fit: 'needs-image',
    doubts: ['other-panel'],
  },
  {
    name: 'a T-con out of a set with another panel may draw a wrong picture',
    wanted: { assembly: 'tcon', number: 'TC-9', panel: 'VL43-A1' },
    item: item({ assembly: 'tcon', number: 'TC-9', panel: 'VL43-C2' }),
    fit: 'same',
    doubts: ['other-panel'],
  },
  { name: 'a power board asks for no panel', wanted: power, item: item({ panel: 'VL43-C2' }), fit: 'same' },
  {
    name: 'a main board whose option has to be set',
    wanted: { assembly: 'main', number: 'MB-7' },
    item: item({ assembly: 'main', number: 'MB-8', fits: [{ number: 'MB-7', how: 'needs-setting' }] }),
    fit: 'needs-setting',
  },
  {
    name: 'a good board in a donor set',
    wanted: power,
    item: item({
      what: 'donor',
      number: 'QK3-50',
      assembly: undefined,
      donor: { boards: [{ assembly: 'power', number: 'PW48A', state: 'good' }], chips: [] },
    }),
    fit: 'same',
  },
  {
    name: 'a small part that goes on any board, by what is printed on it',
    wanted: { assembly: 'power', number: '470 µF 35 V' },
    item: item({ what: 'part', number: '470µF 35V', assembly: undefined, condition: 'new' }),
    fit: 'same',
  },
  {
    name: 'a board of which nobody wrote down what it is',
    wanted: power,
    item: item({ assembly: undefined }),
    fit: null,
  },
  {
    name: 'one nobody has tried yet',
    wanted: power,
    item: item({
      what: 'donor',
      number: 'QK3-50',
      assembly: undefined,
      donor: { boards: [{ assembly: 'power', number: 'PW48A', state: 'untested' }], chips: [] },
    }),
    fit: 'same',
    doubts: ['untested'],
  },
  {
    name: 'one that is why the donor is a donor',
    wanted: power,
    item: item({
      what: 'donor',
      number: 'QK3-50',
      assembly: undefined,
      donor: { boards: [{ assembly: 'power', number: 'PW48A', state: 'bad' }], chips: [] },
    }),
    fit: null,
  },
  {
    name: 'one that went into another set',
    wanted: power,
    item: item({
      what: 'donor',
      number: 'QK3-50',
      assembly: undefined,
      donor: { boards: [{ assembly: 'power', number: 'PW48A', state: 'taken' }], chips: [] },
    }),
    fit: null,
  },
  {
    name: 'a chip by what is printed on it, off a donor board',
    wanted: { chip: '25Q64' },
    item: item({
      what: 'donor',
      number: 'QK3-50',
      assembly: undefined,
      donor: { boards: [], chips: [{ marking: '25 q64', on: 'main', state: 'good' }] },
    }),
    fit: 'same',
  },
  {
    name: 'strips: as many, as many LEDs, as long, same plug',
    wanted: { assembly: 'strips', number: 'SK-1', strips: { strips: 4, leds: 10, lengthMm: 850, connector: '2 pin' } },
    item: item({
      what: 'strips',
      assembly: 'strips',
      number: 'KIT-4',
      strips: { strips: 4, leds: 10, lengthMm: 851, connector: '2-pin', ledVolts: 3 },
    }),
    fit: 'listed',
    doubts: ['print-unseen'],
  },
  {
    name: 'strips: one LED fewer is another current and another picture',
    wanted: { assembly: 'strips', number: 'SK-1', strips: { strips: 4, leds: 10, lengthMm: 850 } },
    item: item({ what: 'strips', assembly: 'strips', number: 'KIT-4', strips: { strips: 4, leds: 9, lengthMm: 850 } }),
    fit: 'does-not-fit',
  },
  {
    name: 'strips: 6 V LEDs where 3 V ones were',
    wanted: { assembly: 'strips', number: 'SK-1', strips: { strips: 4, leds: 10, lengthMm: 850, ledVolts: 3 } },
    item: item({ what: 'strips', assembly: 'strips', number: 'KIT-4', strips: { strips: 4, leds: 10, lengthMm: 850, ledVolts: 6 } }),
    fit: 'does-not-fit',
  },
  {
    name: 'strips: a length nobody measured',
    wanted: { assembly: 'strips', number: 'SK-1', strips: { strips: 4, leds: 10 } },
    item: item({ what: 'strips', assembly: 'strips', number: 'KIT-4', strips: { strips: 4, leds: 10, lengthMm: 850 } }),
    fit: 'listed',
    doubts: ['print-unseen', 'size-unknown'],
  },
];
