/** The whole course of a session, in order: what is done, what is due, what is still to come. */
import { gatesOf, gatesOfArea, nextFlashStep, type FlashAim, type FlashGate, type FlashSession } from './session.ts';

/** A step of the course. */
export interface CourseStep {
  readonly aim: FlashAim;
  readonly state: 'done' | 'due' | 'to-come';
}

/** A step is done once none of these is left. */
const left = {
  supply: ['supply-first', 'programmer-too-high', 'programmer-too-low', 'two-supplies'],
  entered: ['way-first', 'clock-first'],
  identified: ['identify-first', 'not-detected', 'marking-differs'],
  read: [
    'read-first',
    'read-again-first',
    'structure-first',
    'reads-differ',
    'chip-failing',
    'nothing-in-it',
    'repeats-itself',
    'size-differs',
    'not-kept',
  ],
  chosen: ['image-first', 'does-not-fit', 'unsteady-read', 'image-size'],
  newChip: ['new-chip-first'],
  erased: ['erase-first'],
  blank: ['blank-first', 'not-blank'],
  programmed: ['program-first', 'unfinished', 'other-image'],
  verified: ['program-first', 'unfinished', 'other-image', 'verify-first', 'verify-failed'],
  fitted: ['fit-first', 'differs-first'],
  bootConfig: ['boot-config-first', 'boot-config-differs'],
  wayOut: ['way-out-first'],
} as const satisfies Record<string, readonly FlashGate[]>;

const none = (gates: readonly FlashGate[], of: readonly FlashGate[]): boolean => !gates.some((one) => of.includes(one));

/** Steps of the session’s plan; a memory without an erase has none. */
export function flashCourse(session: FlashSession): CourseStep[] {
  const { plan, memory } = session.opened;
  const entering = gatesOf(session, { step: 'identified' });
  const starting = gatesOf(session, { step: 'started' });
  const steps: { aim: FlashAim; done: boolean }[] = [
    { aim: { step: 'supply' }, done: none(entering, left.supply) },
    { aim: { step: 'entered' }, done: none(entering, left.entered) },
    { aim: { step: 'identified', of: 'this' }, done: none(gatesOf(session, { step: 'read' }), left.identified) },
  ];
  const areas = session.areas.map((one) => ({
    area: one.area,
    leftAlone: one.leftAlone,
    unfinished: one.unfinished,
    gates: gatesOfArea(session, one),
  }));
  for (const { area, gates } of areas) steps.push({ aim: { step: 'read', area }, done: none(gates, left.read) });
  const written = plan === 'rewrite' || plan === 'onto-new' ? areas.filter(({ leftAlone }) => !leftAlone) : [];
  const boots = plan === 'onto-new' && memory === 'emmc';
  const known = (which: 'this' | 'new-one'): boolean => session.did.some((one) => one.step === 'boot-config' && one.of === which);
  if (boots) steps.push({ aim: { step: 'boot-config', of: 'this' }, done: known('this') });
  for (const { area, gates } of written) steps.push({ aim: { step: 'chosen', area }, done: none(gates, left.chosen) });
  if (plan === 'onto-new')
    steps.push({ aim: { step: 'identified', of: 'new-one' }, done: written.every(({ gates }) => none(gates, left.newChip)) });
  for (const { area, gates, unfinished } of written) {
    // A new chip comes blank, but for one that a write broke off on.
    if ((plan === 'rewrite' || unfinished) && memory !== 'eeprom')
      steps.push({ aim: { step: 'erased', area }, done: none(gates, left.erased) });
    if (memory !== 'eeprom') steps.push({ aim: { step: 'blank', area }, done: none(gates, left.erased) && none(gates, left.blank) });
    steps.push({ aim: { step: 'programmed', area }, done: none(gates, left.programmed) });
    steps.push({ aim: { step: 'verified', area }, done: none(gates, left.verified) });
  }
  if (boots) steps.push({ aim: { step: 'boot-config', of: 'new-one' }, done: known('new-one') && none(starting, left.bootConfig) });
  if (plan === 'ready-written' || plan === 'move') steps.push({ aim: { step: 'fitted' }, done: none(starting, left.fitted) });
  steps.push({ aim: { step: 'way-out' }, done: none(starting, left.wayOut) });
  if (plan !== 'keep-only') steps.push({ aim: { step: 'started' }, done: session.started !== undefined });
  const due = nextFlashStep(session);
  const isDue = ({ step, area, of }: FlashAim): boolean => due?.step === step && due.area === area && (due.of ?? 'this') === (of ?? 'this');
  const at = steps.findIndex(({ aim }) => isDue(aim));
  // What comes behind the step that is due has to be done again, though it was done once; an image may be chosen at any time.
  const again = (index: number, { step }: FlashAim): boolean => at >= 0 && index > at && step !== 'chosen';
  return steps.map(({ aim, done }, index) => ({ aim, state: index === at ? 'due' : done && !again(index, aim) ? 'done' : 'to-come' }));
}
