/** The Bench’s keys, in one place: what a pressed key asks for, the cap that shows it, and the order of the list of keys. */

/** Command -> its keys as the browser names them, in lower case; several keys stand for several things of one kind, in that order. */
export const benchKeys = {
  confirm: [' '],
  answer: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
  cantTell: ['0'],
  notPossible: ['n'],
  thinkSo: ['t'],
  cautions: ['c'],
  anyway: ['a'],
  wait: ['w'],
  waitSeen: ['e'],
  alternative: ['s', 'd', 'f'],
  order: ['o'],
  plug: ['u'],
  rails: ['r'],
  charge: ['v'],
  strap: ['g'],
  plan: ['p'],
  connector: ['x'],
  symptom: ['='],
  light: ['l'],
  doubtful: ['k'],
  sheet: ['+'],
  work: ['.'],
  heat: ['h'],
  stimulus: ['j'],
  teardown: ['z'],
  photo: ['i'],
  quick: ['q'],
  note: ['m'],
  far: ['b'],
  aloud: ['y'],
  back: ['escape'],
  keys: ['?'],
} as const satisfies Record<string, readonly string[]>;
export type BenchCommand = keyof typeof benchKeys;
export const benchCommands = Object.keys(benchKeys) as BenchCommand[];

/** What a key asks for; `nth` counts from 0 where a command has several keys. */
export interface Pressed {
  readonly command: BenchCommand;
  readonly nth: number;
}
const byKey = new Map<string, Pressed>(
  benchCommands.flatMap((command) => benchKeys[command].map((key, nth): [string, Pressed] => [key, { command, nth }])),
);

/** Undefined where the Bench has no use for the key. */
export const pressed = (key: string): Pressed | undefined => byKey.get(key.toLowerCase());

const special: Readonly<Record<string, string>> = { ' ': 'Space', escape: 'Esc' };
const capOfKey = (key: string): string => special[key] ?? key.toUpperCase();
/** What the cap of a command’s key shows; empty where it has no such key. */
export function cap(command: BenchCommand, nth = 0): string {
  const key = (benchKeys[command] as readonly string[])[nth];
  return key === undefined ? '' : capOfKey(key);
}
/** All keys of a command, as the list of keys shows them. */
export function caps(command: BenchCommand): string {
  const keys = benchKeys[command].map(capOfKey);
  return keys.length > 3 ? `${keys[0]}–${keys.at(-1)}` : keys.join(' ');
}
