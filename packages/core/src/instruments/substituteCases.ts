/**
 * What a technician with twenty years asks before a universal board is connected, in this order; written before the rules, from the trade (common
 * practice, no source). A gate that isn't passed bars all behind it.
 */

const rails = { railNominal: '12', railRead: '12.1' };
const budget = { supplyAmps: '4', boardAmps: '1.2', panelAmps: '0.8', soundAmps: '0.6' };
const jumper = { jumperVolts: '12', tconVolts: '12' };
const cable = { supplySide: 'same', pairsBoard: '10', pairsPanel: '10', bitsBoard: '8', bitsPanel: '8' };
const light = { lightBy: 'main' };

export const gateCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly says: string;
  readonly passed: number;
}[] = [
  { name: 'nothing read yet: the rail first, with nothing connected', input: {}, says: 'gate-rails', passed: 0 },
  { name: 'the rail is not what it should be', input: { railNominal: '12', railRead: '14.2' }, says: 'gate-rails-wrong', passed: 0 },
  { name: 'the rail is right: the current next', input: rails, says: 'gate-current', passed: 1 },
  {
    name: 'the supply gives less than all of them draw',
    input: { ...rails, ...budget, supplyAmps: '2' },
    says: 'gate-current-short',
    passed: 1,
  },
  { name: 'enough: the panel voltage next', input: { ...rails, ...budget }, says: 'gate-jumper', passed: 2 },
  // 12 V into a 5 V panel ends it: before the cable goes in, never after.
  {
    name: 'the jumper is on 12 V and the panel takes 5',
    input: { ...rails, ...budget, jumperVolts: '12', tconVolts: '5' },
    says: 'gate-jumper-wrong',
    passed: 2,
  },
  { name: 'equal: the cable next', input: { ...rails, ...budget, ...jumper }, says: 'gate-cable', passed: 3 },
  {
    name: 'supply pins on the other side of the plug',
    input: { ...rails, ...budget, ...jumper, ...cable, supplySide: 'other' },
    says: 'gate-cable-side',
    passed: 3,
  },
  {
    name: 'five pairs for a panel of ten',
    input: { ...rails, ...budget, ...jumper, ...cable, pairsBoard: '5' },
    says: 'gate-cable-pairs',
    passed: 3,
  },
  {
    name: 'eight bits for a panel of six',
    input: { ...rails, ...budget, ...jumper, ...cable, bitsPanel: '6' },
    says: 'gate-cable-bits',
    passed: 3,
  },
  { name: 'it agrees: who commands the light', input: { ...rails, ...budget, ...jumper, ...cable }, says: 'gate-light', passed: 4 },
  { name: 'known: loose on the bench', input: { ...rails, ...budget, ...jumper, ...cable, ...light }, says: 'gate-trial', passed: 5 },
  {
    name: 'no picture',
    input: { ...rails, ...budget, ...jumper, ...cable, ...light, picture: 'no' },
    says: 'gate-trial-picture',
    passed: 5,
  },
  {
    name: 'the light stays on with the set off',
    input: { ...rails, ...budget, ...jumper, ...cable, ...light, picture: 'yes', lightOff: 'no' },
    says: 'gate-light-stays',
    passed: 5,
  },
  {
    name: 'all of it: into the box',
    input: { ...rails, ...budget, ...jumper, ...cable, ...light, picture: 'yes', lightOff: 'yes' },
    says: 'gate-box',
    passed: 6,
  },
  {
    name: 'an answer further on does not pass a gate before it',
    input: { ...jumper, ...cable, ...light, picture: 'yes', lightOff: 'yes' },
    says: 'gate-rails',
    passed: 0,
  },
];
