/** What work on a memory leaves on the set, as a bench expects it to be kept in view: written before the rule. Common practice, no source. */
import type { FlashDid } from '../ledger/index.ts';

/** Steps on one memory named U402, and what is then not as it was delivered. */
export interface OnSetCase {
  readonly name: string;
  readonly did: readonly FlashDid[];
  readonly left: readonly string[];
}

const opened: FlashDid = { step: 'opened', memory: 'emmc', name: 'U402', areas: ['user'], why: 'restart-loop', plan: 'rewrite' };
const clip: FlashDid = { step: 'entered', way: 'clip', with: 'blue' };
const wires: FlashDid = { step: 'entered', way: 'in-place', clockStopped: true };

export const onSetCases: readonly OnSetCase[] = [
  { name: 'a clip is on', did: [opened, clip], left: ['clip U402'] },
  { name: 'another clip takes the place of the first', did: [opened, clip, { ...clip, with: 'pogo' }], left: ['clip U402'] },
  { name: 'wires are on and the clock stands still', did: [opened, wires], left: ['clock-stop U402', 'wires U402'] },
  {
    name: 'wires off, clock forgotten',
    did: [opened, wires, { step: 'way-out', checked: ['supply-off', 'wires-off', 'bridges-none'] }],
    left: ['clock-stop U402'],
  },
  {
    name: 'all off',
    did: [opened, wires, { step: 'way-out', checked: ['supply-off', 'wires-off', 'clock-runs', 'bridges-none'] }],
    left: [],
  },
  {
    name: 'the chip is off the board, and so is the clip',
    did: [opened, clip, { step: 'entered', way: 'lifted', with: 'socket' }],
    left: ['chip-off U402'],
  },
  {
    name: 'the chip is on again',
    did: [opened, { step: 'entered', way: 'socket' }, { step: 'way-out', checked: ['supply-off', 'chip-fitted', 'bridges-none'] }],
    left: [],
  },
];
