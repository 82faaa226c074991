/**
 * Work on one memory: what has been done, what opens the next step, what the evidence says of the chip.
 *
 * Always holds: no area counts as kept by hashes alone; a step that can't be made good afterwards (erase, program, fit) is open only when the area is kept and
 * what goes in is chosen, or a person went past that gate by name.
 */
import type { Entry, FlashDid, MemoryArea } from '../ledger/index.ts';
import { sameBoot } from './bootConfig.ts';

type Did<S extends FlashDid['step']> = Extract<FlashDid, { step: S }>;

/** Why a step is shut. */
export const flashGates = [
  'supply-first',
  'programmer-too-high',
  'programmer-too-low',
  'two-supplies',
  'way-first',
  'clock-first',
  'identify-first',
  'not-detected',
  'marking-differs',
  'read-first',
  'read-again-first',
  'structure-first',
  'reads-differ',
  'chip-failing',
  'nothing-in-it',
  'repeats-itself',
  'size-differs',
  'not-kept',
  'image-first',
  'does-not-fit',
  'unsteady-read',
  'image-size',
  'new-chip-first',
  'erase-first',
  'blank-first',
  'not-blank',
  'program-first',
  'unfinished',
  'other-image',
  'verify-first',
  'verify-failed',
  'fit-first',
  'differs-first',
  'boot-config-first',
  'boot-config-differs',
  'way-out-first',
] as const;
/** One of `flashGates`. */
export type FlashGate = (typeof flashGates)[number];

/** What the evidence says; those that are gates as well name what keeps a step shut. */
export type FlashFinding =
  | FlashGate
  | 'reads-equal'
  | 'reads-differ-contact'
  | 'was-unsteady'
  | 'detect-other-clip'
  | 'detect-lift'
  | 'detect-good-one'
  | 'chip-dead'
  | 'programmer-suspect'
  | 'went-past';

/** A step, and the area or the chip it is about. */
export interface FlashAim {
  readonly step: FlashDid['step'];
  readonly area?: MemoryArea;
  readonly of?: Did<'identified'>['of'];
}

/** What is known of one area. */
export interface AreaState {
  readonly area: MemoryArea;
  readonly reads: readonly Did<'read'>[];
  readonly rebuilt?: Did<'rebuilt'>;
  readonly chosen?: Did<'chosen'>;
  /** Kept and not to be written; what was erased or written can’t be left alone any more. */
  readonly leftAlone: boolean;
  readonly erased: boolean;
  readonly blank?: Did<'blank'>['result'];
  readonly programmed?: string;
  readonly verified?: Did<'verified'>;
  /** Erasing or writing began and did not come to its end: nobody knows what is on it. */
  readonly unfinished: boolean;
}

/** A session, folded. */
export interface FlashSession {
  readonly id: string;
  readonly opened: Did<'opened'>;
  readonly did: readonly FlashDid[];
  readonly areas: readonly AreaState[];
  readonly started?: Did<'started'>['result'];
}

/**
 * A programmer may differ so far from the chip’s I/O supply, as a share of it: between 3.0 and 3.3 V chips and programmers are mixed every day, 1.8 and
 * 2.5 V are not (common practice, no source; absolute maximum ratings of memories are 0.3 to 0.5 V above their supply).
 */
const mostDeviation = 0.12;
/** Contacts on which a chip has to stay silent before it counts as dead, one of them with the chip off the board (two clips, and lifted). */
const silentContacts = 3;

const last = <S extends FlashDid['step']>(did: readonly FlashDid[], step: S): Did<S> | undefined =>
  did.findLast((one): one is Did<S> => one.step === step);
const all = <S extends FlashDid['step']>(did: readonly FlashDid[], step: S): Did<S>[] =>
  did.filter((one): one is Did<S> => one.step === step);

function foldArea(area: MemoryArea, did: readonly FlashDid[]): AreaState {
  let state: AreaState = { area, reads: [], leftAlone: false, erased: false, unfinished: false };
  for (const one of did) {
    if (!('area' in one) || one.area !== area) continue;
    // A read of what was erased or written since is none of the content to be kept.
    if (one.step === 'read') state = touched(state) ? state : { ...state, reads: [...state.reads, one] };
    else if (one.step === 'rebuilt') state = { ...state, rebuilt: one };
    else if (one.step === 'chosen') state = { ...state, chosen: one, leftAlone: false };
    else if (one.step === 'left-alone') state = { ...withoutChosen(state), leftAlone: !touched(state) };
    else if (one.step === 'began')
      state = { ...(one.work === 'erase' ? withoutContent(state) : withoutProgrammed(state)), leftAlone: false, unfinished: true };
    else if (one.step === 'erased') state = { ...withoutContent(state), erased: true, unfinished: false };
    else if (one.step === 'blank') state = { ...state, blank: one.result };
    else if (one.step === 'programmed') state = { ...withoutVerified(state), programmed: one.sha256, unfinished: false };
    else if (one.step === 'verified') state = { ...state, verified: one };
  }
  return state;
}
/** Its old content is gone. */
const touched = ({ erased, programmed, unfinished }: AreaState): boolean => erased || programmed !== undefined || unfinished;
const withoutChosen = ({ chosen: _, ...rest }: AreaState): AreaState => rest;
const withoutVerified = ({ verified: _, ...rest }: AreaState): AreaState => rest;
const withoutProgrammed = ({ verified: _, programmed: __, ...rest }: AreaState): AreaState => rest;
const withoutContent = ({ verified: _, programmed: __, blank: ___, ...rest }: AreaState): AreaState => rest;

/** Folds the steps of one session, oldest first; undefined where it was never opened. */
export function foldFlash(id: string, did: readonly FlashDid[]): FlashSession | undefined {
  const opened = last(did, 'opened');
  if (!opened) return undefined;
  const started = last(did, 'started')?.result;
  return { id, opened, did, areas: opened.areas.map((area) => foldArea(area, did)), ...(started === undefined ? {} : { started }) };
}

/** The sessions of a job, in the order in which they were opened. `live`: entries that still count. */
export function flashSessions(live: readonly Entry[]): FlashSession[] {
  const byId = new Map<string, FlashDid[]>();
  for (const { body } of live) {
    if (body.kind !== 'flash.step') continue;
    byId.set(body.session, [...(byId.get(body.session) ?? []), body.did]);
  }
  return [...byId].flatMap(([id, did]) => foldFlash(id, did) ?? []);
}

/** Bytes an area should have, where it is known. */
export function sizeOf(session: FlashSession, area: MemoryArea): number | undefined {
  const identified = all(session.did, 'identified').findLast(({ of, bytes }) => of === 'this' && bytes !== undefined)?.bytes;
  return session.opened.sizes?.[area] ?? (area === 'whole' ? identified : undefined);
}

function supplyGates({ did }: FlashSession): FlashGate[] {
  const supply = last(did, 'supply');
  if (!supply) return ['supply-first'];
  const off = supply.programmerVolts / supply.ioVolts - 1;
  return [
    ...(off > mostDeviation ? (['programmer-too-high'] as const) : off < -mostDeviation ? (['programmer-too-low'] as const) : []),
    ...(supply.feeds.length > 1 ? (['two-supplies'] as const) : []),
  ];
}

function wayGates({ did }: FlashSession): FlashGate[] {
  const entered = last(did, 'entered');
  if (!entered) return ['way-first'];
  const feeds = last(did, 'supply')?.feeds ?? [];
  const boardLives = feeds.length > 0 && !feeds.includes('programmer');
  // A processor that runs talks to its memory while it is read.
  return boardLives && (entered.way === 'in-place' || entered.way === 'clip') && entered.clockStopped !== true ? ['clock-first'] : [];
}

const foundThis = ({ did }: FlashSession): Did<'identified'> | undefined => all(did, 'identified').findLast(({ of }) => of === 'this');

function identifyGates(session: FlashSession): FlashGate[] {
  const found = foundThis(session);
  if (!found) return ['identify-first'];
  return found.result === 'not-detected' ? ['not-detected'] : found.result === 'other' ? ['marking-differs'] : [];
}

/** Three reads or more, each unlike the one before: often enough to rule out a bad contact. */
const noneAlike = (reads: readonly Did<'read'>[]): boolean =>
  reads.length >= 3 && reads.every((one, index) => index === 0 || one.sha256 !== reads[index - 1]?.sha256);

/** The chip, not its contact: cold reads that agree save its content and say nothing for it. */
function failing({ reads }: AreaState): boolean {
  const whole = reads.filter(({ extent }) => extent === 'whole');
  return noneAlike(whole) || noneAlike(whole.filter(({ cold }) => cold !== true));
}

function keepGates(session: FlashSession, area: AreaState): FlashGate[] {
  const onSame: FlashGate[] = failing(area) && session.opened.plan === 'rewrite' ? ['chip-failing'] : [];
  if (area.rebuilt) return onSame;
  const whole = area.reads.filter(({ extent }) => extent === 'whole');
  const [before, latest] = [whole.at(-2), whole.at(-1)];
  if (!latest) return ['read-first'];
  if (latest.allSame !== undefined) return ['nothing-in-it'];
  if (latest.repeats !== undefined) return ['repeats-itself'];
  const size = sizeOf(session, area.area);
  if (size !== undefined && latest.bytes !== size) return ['size-differs'];
  if (before && before.sha256 !== latest.sha256) return ['reads-differ', ...onSame];
  const kept: FlashGate[] = latest.image === undefined && before?.image === undefined ? ['not-kept'] : [];
  if (before) return [...kept, ...onSame];
  const sampled = area.reads.at(-1);
  if (session.opened.memory !== 'emmc' || area.area !== 'user' || sampled?.extent !== 'sampled') return ['read-again-first', ...kept];
  if (sampled.agrees !== true || sampled.structure === 'broken') return ['read-again-first', ...kept];
  return [...(sampled.structure === undefined ? (['structure-first'] as const) : []), ...kept];
}

/** The content of an area that stands: combined from several reads, or read twice in a row; undefined before. `image` where it is stored. */
export function keptContent({
  reads,
  rebuilt,
}: AreaState): { readonly sha256: string; readonly bytes: number; readonly image?: string } | undefined {
  if (rebuilt) return { sha256: rebuilt.sha256, bytes: rebuilt.bytes, image: rebuilt.image };
  const whole = reads.filter(({ extent }) => extent === 'whole');
  const [before, latest] = [whole.at(-2), whole.at(-1)];
  // The user area of an eMMC is read once, and sampled.
  const sampled = whole.length === 1 && reads.at(-1)?.extent === 'sampled' && reads.at(-1)?.agrees === true;
  if (latest?.sha256 === undefined || (!sampled && before?.sha256 !== latest.sha256)) return undefined;
  const image = latest.image ?? before?.image;
  return { sha256: latest.sha256, bytes: latest.bytes, ...(image === undefined ? {} : { image }) };
}

function imageGates(session: FlashSession, state: AreaState): FlashGate[] {
  const { area, chosen, reads } = state;
  if (!chosen) return ['image-first'];
  if (chosen.fit === 'does-not-fit') return ['does-not-fit'];
  const isRead = reads.some(({ sha256 }) => sha256 === chosen.sha256);
  if (isRead && keptContent(state)?.sha256 !== chosen.sha256) return ['unsteady-read'];
  const size = sizeOf(session, area);
  return size !== undefined && chosen.bytes !== size ? ['image-size'] : [];
}

/** A serial EEPROM has no erase: a byte is written over. A new chip is only looked at. */
const erases = ({ opened }: FlashSession): boolean => opened.memory !== 'eeprom' && opened.plan === 'rewrite';
const blankChecks = ({ opened }: FlashSession): boolean => opened.memory !== 'eeprom';
const newChip = ({ did }: FlashSession): boolean => all(did, 'identified').some(({ of, result }) => of === 'new-one' && result === 'found');

function contentGates(session: FlashSession, area: AreaState): FlashGate[] {
  const { plan } = session.opened;
  return [
    ...keepGates(session, area),
    ...imageGates(session, area),
    ...(plan === 'onto-new' && !newChip(session) ? (['new-chip-first'] as const) : []),
  ];
}

/** A new chip that comes blank is erased only where a write to it broke off. */
const halfWritten = (session: FlashSession, { unfinished }: AreaState): boolean => blankChecks(session) && unfinished;

function programGates(session: FlashSession, area: AreaState): FlashGate[] {
  const found = contentGates(session, area);
  if (erases(session) ? !area.erased || area.unfinished : halfWritten(session, area)) return [...found, 'erase-first'];
  if (!blankChecks(session) || area.blank === 'blank') return found;
  return [...found, area.blank === 'not-blank' ? 'not-blank' : 'blank-first'];
}

function writtenGates({ leftAlone, chosen, programmed, verified, unfinished }: AreaState): FlashGate[] {
  if (leftAlone) return [];
  if (unfinished) return ['unfinished'];
  if (programmed === undefined) return ['program-first'];
  if (chosen && programmed !== chosen.sha256) return ['other-image'];
  return verified === undefined ? ['verify-first'] : verified.result === 'differs' ? ['verify-failed'] : [];
}

const writes = ({ opened }: FlashSession): boolean => opened.plan === 'rewrite' || opened.plan === 'onto-new';

function fittedGates({ opened, did }: FlashSession): FlashGate[] {
  if (opened.plan !== 'ready-written' && opened.plan !== 'move') return [];
  const fitted = last(did, 'fitted');
  if (!fitted) return ['fit-first'];
  return opened.plan === 'move' && fitted.differs === undefined ? ['differs-first'] : [];
}

/** A new eMMC boots from nowhere until it is told: its registers have to be the old one’s. */
function bootGates({ opened, did }: FlashSession): FlashGate[] {
  // One that was started already says itself whether it boots.
  if (opened.memory !== 'emmc' || opened.plan !== 'onto-new' || last(did, 'started')) return [];
  const [old, fresh] = [bootConfigOf(did, 'this'), bootConfigOf(did, 'new-one')];
  if (!old || !fresh) return ['boot-config-first'];
  return sameBoot(old, fresh) ? [] : ['boot-config-differs'];
}
const bootConfigOf = (did: readonly FlashDid[], which: Did<'boot-config'>['of']): Did<'boot-config'> | undefined =>
  all(did, 'boot-config').findLast(({ of }) => of === which);
/** Whose registers are to be read or set now; nobody’s where a person went past it. */
function bootConfigDue(session: FlashSession, which: Did<'boot-config'>['of']): FlashAim | undefined {
  if (without(session, bootGates(session)).length === 0) return undefined;
  return which === 'new-one' || !bootConfigOf(session.did, 'this') ? { step: 'boot-config', of: which } : undefined;
}

/** What has to be looked at before the set gets power again, in the order it is done: the supply goes before any wire. */
export function wayOutOf({ opened, did }: FlashSession): Did<'way-out'>['checked'] {
  const entered = all(did, 'entered');
  const by = (...ways: readonly Did<'entered'>['way'][]): boolean => entered.some(({ way }) => ways.includes(way));
  const off = by('lifted', 'socket') || opened.plan === 'onto-new' || opened.plan === 'ready-written' || opened.plan === 'move';
  return [
    'supply-off',
    ...(by('in-place') ? (['wires-off'] as const) : []),
    ...(by('clip') ? (['clip-off'] as const) : []),
    ...(off ? (['chip-fitted'] as const) : []),
    ...(entered.some(({ clockStopped }) => clockStopped === true) ? (['clock-runs'] as const) : []),
    'bridges-none',
  ];
}

/** Steps for which something is on the chip. */
const reaches = new Set<FlashDid['step']>([
  'entered',
  'identified',
  'read',
  'began',
  'erased',
  'blank',
  'programmed',
  'verified',
  'fitted',
  'boot-config',
]);

function wayOutGates(session: FlashSession): FlashGate[] {
  const { did } = session;
  // What was looked at before the chip was last reached for says nothing of what is on it now.
  const since = did.findLastIndex(({ step }) => reaches.has(step));
  const checked = last(did.slice(since + 1), 'way-out')?.checked ?? [];
  return wayOutOf(session).every((one) => checked.includes(one)) ? [] : ['way-out-first'];
}

/** Gates that a person went past: of this area, or of the session where the override names none. */
function without(session: FlashSession, gates: readonly FlashGate[], area?: MemoryArea): FlashGate[] {
  const past = all(session.did, 'overrode').filter((one) => one.area === undefined || one.area === area);
  return gates.filter((gate) => !past.some((one) => one.gate === gate));
}

/** Why a step is not open, in the order of the work; none: it is. */
export function gatesOf(session: FlashSession, { step, area: id }: FlashAim): FlashGate[] {
  const area = session.areas.find((one) => one.area === id);
  const entering = [...supplyGates(session), ...wayGates(session)];
  const shut = (): FlashGate[] => {
    if (step === 'entered') return supplyGates(session);
    if (step === 'identified') return entering;
    if (step === 'read') return [...entering, ...identifyGates(session)];
    if (step === 'boot-config') return entering;
    if (step === 'fitted') return session.areas.flatMap((one) => without(session, keepGates(session, one), one.area));
    if (step === 'started')
      return [
        ...(writes(session) ? session.areas.flatMap((one) => without(session, writtenGates(one), one.area)) : fittedGates(session)),
        ...bootGates(session),
        ...wayOutGates(session),
      ];
    if (!area) return [];
    if (step === 'erased') return [...supplyGates(session), ...contentGates(session, area)];
    if (step === 'blank')
      return session.opened.plan === 'onto-new' && !newChip(session)
        ? ['new-chip-first']
        : (area.erased || !erases(session)) && !area.unfinished
          ? []
          : ['erase-first'];
    if (step === 'programmed') return [...supplyGates(session), ...programGates(session, area)];
    if (step === 'verified') return area.unfinished ? ['unfinished'] : area.programmed === undefined ? ['program-first'] : [];
    return [];
  };
  return without(session, [...new Set(shut())], id);
}

/** Everything that is still missing for one area to be kept and, where it is written, written; gates that were overridden are left out. */
export function gatesOfArea(session: FlashSession, area: AreaState): FlashGate[] {
  const write = writes(session) && !area.leftAlone ? [...programGates(session, area), ...writtenGates(area)] : keepGates(session, area);
  return without(session, [...new Set(write)], area.area);
}

interface Detection {
  readonly says?: FlashFinding;
  readonly next?: FlashAim;
}

/** A chip that stays silent: a bad contact, the chip, or the programmer. */
function detection(session: FlashSession): Detection {
  const { did } = session;
  const found = foundThis(session);
  if (!found || did.lastIndexOf(found) < did.findLastIndex(({ step }) => step === 'entered'))
    return { next: { step: 'identified', of: 'this' } };
  if (found.result === 'found') return {};
  if (found.result === 'other') return { says: 'marking-differs', next: { step: 'identified', of: 'this' } };
  const silent = new Map<string, boolean>();
  let entered: Did<'entered'> | undefined;
  for (const one of did) {
    if (one.step === 'entered') entered = one;
    else if (one.step === 'identified' && one.of === 'this' && one.result === 'not-detected' && entered)
      silent.set(`${entered.way} ${entered.with ?? ''}`, entered.way === 'lifted' || entered.way === 'socket');
  }
  const offBoard = [...silent.values()].some((one) => one);
  if (!offBoard && silent.size >= silentContacts - 1) return { says: 'detect-lift', next: { step: 'entered' } };
  if (silent.size < silentContacts) return { says: 'detect-other-clip', next: { step: 'entered' } };
  const good = all(did, 'identified').findLast(({ of }) => of === 'good-one');
  if (!good) return { says: 'detect-good-one', next: { step: 'identified', of: 'good-one' } };
  return { says: good.result === 'found' ? 'chip-dead' : 'programmer-suspect' };
}

function nextOfArea(session: FlashSession, state: AreaState): FlashAim | undefined {
  const { area } = state;
  if (state.leftAlone || without(session, writtenGates(state), area).length === 0) return undefined;
  const again: FlashAim = { step: erases(session) || halfWritten(session, state) ? 'erased' : 'programmed', area };
  if (state.unfinished) return again;
  const verified = state.verified?.result;
  if (state.programmed !== undefined)
    return verified === 'differs' || state.programmed !== state.chosen?.sha256 ? again : { step: 'verified', area };
  if (erases(session) && (!state.erased || state.blank === 'not-blank')) return { step: 'erased', area };
  return blankChecks(session) && state.blank !== 'blank' ? { step: 'blank', area } : { step: 'programmed', area };
}

/** The step that is due; undefined where nothing more follows by itself. */
export function nextFlashStep(session: FlashSession): FlashAim | undefined {
  if (without(session, supplyGates(session)).length > 0) return { step: 'supply' };
  if (without(session, wayGates(session)).length > 0) return { step: 'entered' };
  const unkept = session.areas.filter((one) => without(session, keepGates(session, one), one.area).length > 0);
  if (unkept.length > 0) {
    const { next, says } = detection(session);
    if (next || says) return next;
    const [area] = unkept;
    // Its content is safe: what is left is not to write it onto the same chip.
    if (area && without(session, keepGates(session, area), area.area).every((gate) => gate === 'chip-failing')) return { step: 'opened' };
    const rebuild = area && failing(area) && session.opened.plan === 'onto-new';
    return area && { step: rebuild ? 'rebuilt' : 'read', area: area.area };
  }
  if (writes(session)) {
    const old = bootConfigDue(session, 'this');
    if (old) return old;
    const open = session.areas.find((one) => !one.leftAlone && without(session, imageGates(session, one), one.area).length > 0);
    if (open) return { step: 'chosen', area: open.area };
    if (session.opened.plan === 'onto-new' && !newChip(session)) return { step: 'identified', of: 'new-one' };
    for (const area of session.areas) {
      const next = nextOfArea(session, area);
      if (next) return next;
    }
    const set = bootConfigDue(session, 'new-one');
    if (set) return set;
  } else if (without(session, fittedGates(session)).length > 0) return { step: 'fitted' };
  if (without(session, wayOutGates(session)).length > 0) return { step: 'way-out' };
  if (session.opened.plan === 'keep-only') return undefined;
  if (session.started === undefined) return { step: 'started' };
  return session.started === 'starts' ? { step: 'setting' } : undefined;
}

/** What the steps say of supply, chip, dump and image, in the order of the work. */
export function flashFindings(session: FlashSession): FlashFinding[] {
  const { did, areas } = session;
  const unkept = areas.some((area) => keepGates(session, area).length > 0);
  const found: (FlashFinding | undefined)[] = [
    ...(last(did, 'supply') ? supplyGates(session) : []),
    ...(last(did, 'entered') ? wayGates(session) : []),
    foundThis(session) && unkept ? detection(session).says : undefined,
    ...areas.flatMap((area) => saysOfReads(session, area)),
    !unkept && areas.every(({ rebuilt }) => !rebuilt) ? 'reads-equal' : undefined,
    areas.some((area) => unsteady(area) && !failing(area)) && !unkept ? 'was-unsteady' : undefined,
    ...areas.flatMap((area) => (area.chosen ? imageGates(session, area) : [])),
    areas.some(({ blank }) => blank === 'not-blank') ? 'not-blank' : undefined,
    areas.some(({ unfinished }) => unfinished) ? 'unfinished' : undefined,
    ...areas.flatMap((area) => writtenGates(area).filter((one) => one === 'other-image' || one === 'verify-failed')),
    ...fittedGates(session).filter((one) => one === 'differs-first'),
    ...bootGates(session).filter((one) => one === 'boot-config-differs'),
    all(did, 'overrode').length > 0 ? 'went-past' : undefined,
  ];
  return [...new Set(found.flatMap((one) => one ?? []))];
}

const unsteady = ({ reads }: AreaState): boolean => new Set(reads.flatMap(({ sha256 }) => sha256 ?? [])).size > 1;

function saysOfReads(session: FlashSession, area: AreaState): FlashFinding[] {
  if (failing(area)) return ['chip-failing'];
  const gates = keepGates(session, area);
  if (gates.includes('reads-differ')) return ['reads-differ-contact'];
  return gates.filter((one) => one === 'nothing-in-it' || one === 'repeats-itself' || one === 'size-differs' || one === 'not-kept');
}
