/** Sentences of work on a memory: gates, findings, what the set needs first. */
import { formatBytes, type FitPoint, type FlashFinding, type FlashGate, type FlashUnsafe } from '@veglia/core';

/** Sentences by code. */
export interface FlashWords {
  /** Why a step is not open: what is missing, and what to do. */
  readonly gate: Record<FlashGate, string>;
  /** What the evidence says, and what follows from it. */
  readonly finding: Record<Exclude<FlashFinding, FlashGate>, string>;
  readonly unsafe: Record<FlashUnsafe, string>;
  readonly consentFirst: string;
  /** What was compared of set ({ours}) and image ({theirs}). */
  readonly fit: Record<FitPoint['code'], string>;
}

const gate: FlashWords['gate'] = {
  'supply-first': 'The chip’s supply is not measured. Measure core and I/O on the board before anything is connected.',
  'programmer-too-high': 'The programmer’s voltage is above the chip’s I/O supply. It can destroy the chip. Set it to what was measured.',
  'programmer-too-low': 'The programmer’s voltage is below the chip’s I/O supply. Reads would be wrong. Set it to what was measured.',
  'two-supplies': 'More than one supply feeds the chip. Leave one only: the programmer or the board, never both.',
  'way-first': 'How the chip is reached is not recorded.',
  'clock-first': 'The board is fed and its processor runs: it would talk to the chip as well. Stop its clock and record that.',
  'identify-first': 'The chip is not identified.',
  'not-detected': 'The chip was not detected.',
  'marking-differs': 'The chip answers as another type than is printed on it. Check contact, voltage and marking; identify it again.',
  'read-first': 'The content is not read. Read it and save it before anything is changed.',
  'read-again-first': 'One read is no backup. Read again; both must be equal.',
  'structure-first': 'The samples agree. Look at partitions and file systems too, or read it in full again.',
  'reads-differ': 'The last two reads differ.',
  'chip-failing': 'The chip fails. Never write it again: use a new chip.',
  'nothing-in-it': 'Every byte is the same: an empty chip, or no contact. That is no backup.',
  'repeats-itself':
    'The same content stands there several times: the chip is smaller than it was read as, or takes longer addresses. Identify it again.',
  'size-differs': 'The dump is not as large as the chip.',
  'not-kept': 'The dump is not stored. A hash alone brings no board back.',
  'image-first': 'The image to write is not chosen.',
  'does-not-fit': 'The chosen image does not fit this set.',
  'unsteady-read': 'The chosen image is a read that differs from the kept dump: it holds the chip’s errors. Choose the kept dump.',
  'image-size': 'The chosen image is not as large as the chip.',
  'new-chip-first': 'The new chip is not identified.',
  'erase-first': 'The chip is not erased.',
  'blank-first': 'The chip is not checked for blank.',
  'not-blank': 'The chip is not blank. Erase it again; if it stays so, it is protected or worn.',
  'program-first': 'The chip is not programmed.',
  unfinished: 'Erasing or writing broke off. Nobody knows what is on the chip: check contact and supply, then do it again.',
  'other-image': 'What was programmed is not the chosen image.',
  'verify-first': 'The chip is not verified.',
  'verify-failed': 'What was read back differs from the image. Erase and program again; if it differs again, use a new chip.',
  'fit-first': 'The other chip is not fitted.',
  'differs-first': 'What differs between the two boards is not recorded.',
  'boot-config-first': 'The boot registers of the new chip are not known to be those of the old one. Without them it does not boot.',
  'boot-config-differs':
    'The boot registers of the new chip differ from the old one’s. Set them alike; its reset contact can be set only once.',
  'way-out-first': 'Not everything is off the chip. Check the list before the set gets power.',
};

/** Sentences in English. */
export const flashEn: FlashWords = {
  gate,
  finding: {
    'reads-equal': 'Dump stored, read twice, both equal.',
    'reads-differ-contact': 'Two reads differ: first suspect the contact. Reseat clip or wires and read again.',
    'was-unsteady': 'An earlier read differed. The contact was poor, or the chip is beginning to fail.',
    'detect-other-clip': 'Not detected: contact, or the chip. Reseat, then try another clip.',
    'detect-lift': 'Not detected on two contacts. Lift the chip and read it in a socket.',
    'detect-good-one': 'Not detected off the board either. Try a good chip of this type to check programmer and settings.',
    'chip-dead': 'A good chip of this type is detected and this one is not: the chip is dead.',
    'programmer-suspect':
      'A good chip of this type is not detected either: suspect the programmer, its settings or the contact. Nothing is known of this chip.',
    'went-past': 'A gate was overridden; the reason is in the ledger.',
  },
  consentFirst: 'The customer has not agreed to losing settings and accounts. Ask, and record the answer.',
  fit: {
    'own-content': 'This set’s own content: it ran on it.',
    'own-put-in': 'With this set’s own content put in.',
    'panel-same': 'Panel {ours}: the same.',
    'board-same': 'Board {ours}: the same.',
    'revision-same': 'Revision {ours}: the same.',
    hits: 'Started {ours} of this shop’s sets with this board and panel.',
    'panel-unknown': 'The image’s panel is unknown; this set has {ours}. The picture may come out wrong.',
    'panel-not-read': 'This set’s panel label was not read. Read it before writing.',
    'board-unknown': 'Board number unknown on one side. Compare both before writing.',
    'revision-other': 'Board revision differs: set {ours}, image {theirs}.',
    'revision-unknown': 'Board revision known on one side only.',
    'size-not-read': 'The chip’s size is unknown. Identify it first.',
    untried: 'Bought or downloaded, and never tried in this shop.',
    'panel-other': 'Other panel: set {ours}, image {theirs}. Same series in another size often works after panel settings.',
    'own-of-other': 'Another set’s own content was put into it: serial number, keys, addresses. Use the image without it.',
    'region-other': 'Other region: set {ours}, image {theirs}. Menus, tuner and apps change.',
    'companion-first': 'It goes with {theirs}, which is not written in this session. Write both, from one set.',
    reconstructed: 'Combined from several reads of a failing chip; {theirs} bytes were unsteady.',
    misses: '{ours} of this shop’s sets with this board and panel were worse after it.',
    'memory-other': 'For another kind of memory or another area.',
    'size-other': 'Chip {ours}, image {theirs}.',
    'resolution-other': 'Resolution differs: panel {ours}, image {theirs}.',
    'link-other': '{ours} pairs go to the panel: too few for {theirs}.',
    'board-other': 'Other board: set {ours}, image {theirs}.',
  },
  unsafe: {
    'open-first': 'The cover is on. Unplug the set, take it off and record that.',
    'unplug-first': 'Set is plugged in. Unplug it first.',
    'down-first': 'Rails not checked. Wait until they are down and record it before touching the board.',
    'measure-first': 'Mains side and memory share a board. Measure below 60 V and record it before touching the board.',
  },
};

/** The sentence of a finding, whether it shuts a step or not. */
export const flashSentence = (words: FlashWords, code: FlashFinding): string =>
  code in words.finding ? words.finding[code as keyof FlashWords['finding']] : words.gate[code as FlashGate];

/** The sentence of what was compared. */
export function fitSentence(words: FlashWords, { code, ours, theirs }: FitPoint): string {
  const shown = (side: string | undefined): string => (side === undefined ? '?' : code === 'size-other' ? formatBytes(Number(side)) : side);
  return words.fit[code].replace('{ours}', () => shown(ours)).replace('{theirs}', () => shown(theirs));
}
