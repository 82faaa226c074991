/**
 * What a technician with twenty years expects of a short that is looked for plug by plug, and of a T-con's supplies; written before the rules, from the
 * trade and Ohm's law (common practice, no source).
 */

/** A rail to chassis, unplugged and discharged: with everything on, then with one load after the other taken off and left off. */
export const plugCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly says: readonly string[];
  /** Loads that are accused, as they were named. */
  readonly accused?: string;
}[] = [
  {
    name: 'it leaves with the third',
    input: { all: '2.1', off: 'speakers 2.1; usb 2.1; tcon 480' },
    says: ['short-leaves'],
    accused: 'tcon',
  },
  { name: 'it stays with everything off', input: { all: '0.3', off: 'speakers 0.3; usb 0.3; tcon 0.31' }, says: ['short-on-board'] },
  { name: 'there is none', input: { all: '640', off: 'speakers 700' }, says: ['no-short'] },
  // 1 Ω is two loads of 2 Ω side by side.
  { name: 'two loads are short', input: { all: '1.0', off: 'left 2.0; right 500' }, says: ['shorts-leave'], accused: 'left, right' },
  { name: 'nothing off yet', input: { all: '2.1' }, says: ['take-off-next'] },
  { name: 'not gone yet, and not all is off', input: { all: '2.1', off: 'speakers 2.1', more: 'yes' }, says: ['take-off-next'] },
  {
    name: 'it falls while loads come off: a charging capacitor or a bad probe',
    input: { all: '5', off: 'speakers 2' },
    says: ['reading-fell'],
  },
  {
    name: 'a low rail that grows as loads come off is load, not short',
    input: { all: '12', off: 'a 18; b 30; c 55' },
    says: ['no-one-load'],
  },
];

/** Supplies of a panel as found on the T-con: there, missing, or there for an instant. */
export const biasCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly says: readonly string[];
}[] = [
  {
    name: 'all there: contacts, then the panel',
    input: { vgh: 'there', vgl: 'there', avdd: 'there', vcom: 'there' },
    says: ['bias-all-there'],
  },
  {
    name: 'one missing: a short near it',
    input: { vgh: 'missing', vgl: 'there', avdd: 'there', vcom: 'there' },
    says: ['bias-one-missing'],
  },
  { name: 'one there for an instant: it trips', input: { vgh: 'trips', vgl: 'there', avdd: 'there', vcom: 'there' }, says: ['bias-trips'] },
  {
    name: 'none: fuse, supply or converter chip',
    input: { vgh: 'missing', vgl: 'missing', avdd: 'missing', vcom: 'missing' },
    says: ['bias-none'],
  },
  // Gate supplies are pumped from the column supply: without it they can't be there.
  {
    name: 'column supply and both gate supplies missing: the column supply first',
    input: { vgh: 'missing', vgl: 'missing', avdd: 'missing' },
    says: ['bias-column-first'],
  },
  {
    name: 'common level alone missing with its supply there',
    input: { vgh: 'there', vgl: 'there', avdd: 'there', vcom: 'missing' },
    says: ['bias-common-alone'],
  },
  { name: 'nothing measured', input: {}, says: [] },
  { name: 'one measured is not enough', input: { avdd: 'there' }, says: ['bias-measure-more'] },
  { name: 'everything down after one trips', input: { vgh: 'trips', vgl: 'missing', avdd: 'missing' }, says: ['bias-trips'] },
];
