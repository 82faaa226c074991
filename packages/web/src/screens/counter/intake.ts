/** What is typed at the counter, what is wrong with it, and the entries it amounts to. No screen in here. */
import { boundsOf, customerSchema, parseAmount, plateSchema, type Bounds, type NewJobInput } from '@veglia/contract';
import {
  bodySchemas,
  layoutProbabilitiesByLooks,
  parseSeen,
  setFactsSchema,
  type accessories,
  type paperLanguages,
  type Body,
  type BodyOf,
  type CompiledPack,
  type conditions,
  type earlierHands,
  type earlierWork,
  type photoSubjects,
  type QuickBody,
  type SetFacts,
  type theorySources,
} from '@veglia/core';
import { lettersTooMany, parseBetween } from '../../numbers.ts';
import { blinkBody, takenOfSeen, type Taken } from '../blink/reading.ts';

export interface Answer {
  readonly test: string;
  readonly of?: string | undefined;
  readonly outcome: string;
}

export interface Theory {
  text: string;
  source: (typeof theorySources)[number];
  assembly: string;
}

export interface IntakePhoto {
  readonly id: string;
  readonly name: string;
  of: (typeof photoSubjects)[number];
}

/** Everything as typed: kept as a draft, so plain data only. */
export interface IntakeForm {
  id: string;
  symptoms: string[];
  words: string;
  often: '' | 'always' | 'sometimes';
  temperature: '' | 'cold' | 'warm' | 'any';
  since: string;
  after: string;
  blink: string;
  blinkTwice: boolean;
  /** As the reader took it; typing over it lets it go. */
  blinkTaken: Taken | null;
  maker: string;
  family: string;
  model: string;
  version: string;
  serial: string;
  size: string;
  age: string;
  layout: string;
  looks: Record<string, string>;
  condition: (typeof conditions)[number][];
  earlier: string;
  earlierBy: '' | (typeof earlierHands)[number];
  earlierDid: (typeof earlierWork)[number][];
  theories: Theory[];
  accessories: (typeof accessories)[number][];
  otherAccessories: string;
  shelf: string;
  ownSet: boolean;
  customerId: string;
  name: string;
  contact: string;
  limit: string;
  limitMinutes: string;
  checkFee: string;
  /** YYYY-MM-DD. */
  promised: string;
  warranty: 'unknown' | 'running' | 'over';
  mayLoseData: '' | 'yes' | 'no';
  /** Empty: the shop’s. */
  language: '' | (typeof paperLanguages)[number];
  needs: string;
  canDoWithout: string;
  /** Answered at the counter, and taken from the quick line. */
  answers: Answer[];
  quick: QuickBody[];
  notes: string[];
  photos: IntakePhoto[];
}

export const blankIntake = (id: string): IntakeForm => ({
  id,
  symptoms: [],
  words: '',
  often: '',
  temperature: '',
  since: '',
  after: '',
  blink: '',
  blinkTwice: false,
  blinkTaken: null,
  maker: '',
  family: '',
  model: '',
  version: '',
  serial: '',
  size: '',
  age: '',
  layout: 'not-sure',
  looks: {},
  condition: [],
  earlier: '',
  earlierBy: '',
  earlierDid: [],
  theories: [],
  accessories: [],
  otherAccessories: '',
  shelf: '',
  ownSet: false,
  customerId: '',
  name: '',
  contact: '',
  limit: '',
  limitMinutes: '',
  promised: '',
  checkFee: '',
  warranty: 'unknown',
  mayLoseData: '',
  language: '',
  needs: '',
  canDoWithout: '',
  answers: [],
  quick: [],
  notes: [],
  photos: [],
});

/** Whether anything was typed that would be a pity to lose. */
export const isBlank = (form: IntakeForm): boolean => {
  const blank = blankIntake(form.id);
  return JSON.stringify({ ...form, checkFee: '' }) === JSON.stringify(blank);
};

/** A draft as it was kept, by whatever version of this screen: what fits is taken, what is missing is blank. */
export function intakeOfDraft(content: unknown, id: string): IntakeForm {
  const blank = blankIntake(id);
  if (typeof content !== 'object' || content === null) return blank;
  for (const [key, value] of Object.entries(content as Record<string, unknown>)) {
    const known = blank[key as keyof IntakeForm];
    if (known !== undefined && typeof known === typeof value && Array.isArray(known) === Array.isArray(value))
      Object.assign(blank, { [key]: value });
  }
  return blank;
}

const opened = bodySchemas['job.opened'].shape;
const reported = bodySchemas['symptom.reported'].shape;
/** What may be stored of a text. */
export const textBounds = {
  maker: boundsOf(plateSchema.shape.maker),
  model: boundsOf(plateSchema.shape.model),
  serial: boundsOf(plateSchema.shape.serial),
  version: boundsOf(setFactsSchema.shape.version),
  name: boundsOf(customerSchema.shape.name),
  contact: boundsOf(customerSchema.shape.contact),
  words: boundsOf(reported.words),
  since: boundsOf(reported.since),
  after: boundsOf(reported.after),
  earlier: boundsOf(opened.earlier),
  needs: boundsOf(opened.needs),
  canDoWithout: boundsOf(opened.canDoWithout),
  otherAccessories: boundsOf(opened.otherAccessories),
  shelf: boundsOf(bodySchemas['set.shelved'].shape.shelf),
} as const satisfies Partial<Record<keyof IntakeForm, Bounds>>;
/** And of a number; a limit of no minutes at all is no limit. */
export const numberBounds = {
  size: boundsOf(setFactsSchema.shape.sizeInch),
  age: boundsOf(setFactsSchema.shape.ageYears),
  limitMinutes: { ...boundsOf(bodySchemas['limit.agreed'].shape.minutes), least: 1 },
} as const satisfies Partial<Record<keyof IntakeForm, Bounds>>;

/** Field -> what is wrong with it, as a code of the screen's words; `value` is what was typed. A text that is too long says so itself. */
export type IntakeErrors = Partial<
  Record<'symptoms' | 'blink' | 'limit' | 'checkFee' | keyof typeof numberBounds | keyof typeof textBounds, string>
>;

/** The sentence beside a field, where something is wrong with what is typed there. */
export type ErrorOf = (field: keyof IntakeErrors) => string | undefined;

const filled = (text: string): boolean => text.trim() !== '';

export function checkIntake(form: IntakeForm, currency: string): IntakeErrors {
  const errors: IntakeErrors = {};
  const wrong = (field: keyof IntakeErrors, typed: string, fine: boolean): void => {
    if (filled(typed) && !fine) errors[field] = typed.trim();
  };
  if (!form.ownSet && form.customerId === '' && !filled(form.name)) errors.name = '';
  if (!filled(form.maker)) errors.maker = '';
  if (form.symptoms.length === 0) errors.symptoms = '';
  for (const field of Object.keys(textBounds) as (keyof typeof textBounds)[])
    if (lettersTooMany(form[field], textBounds[field]) > 0) errors[field] = form[field];
  wrong('size', form.size, parseBetween(form.size, numberBounds.size, true) !== undefined);
  wrong('age', form.age, parseBetween(form.age, numberBounds.age) !== undefined);
  wrong('blink', form.blink, form.blinkTaken !== null || parseSeen(form.blink) !== undefined);
  wrong('limit', form.limit, parseAmount(form.limit, currency) !== undefined);
  wrong('limitMinutes', form.limitMinutes, parseBetween(form.limitMinutes, numberBounds.limitMinutes, true) !== undefined);
  wrong('checkFee', form.checkFee, parseAmount(form.checkFee, currency) !== undefined);
  return errors;
}

const given = <T extends string>(field: T, text: string): { [K in T]?: string } =>
  (filled(text) ? { [field]: text.trim() } : {}) as { [K in T]?: string };

/** The set's facts; layout by looks is probabilities, narrowed to the family's layouts where it is known. */
export function setFactsOf(form: IntakeForm, compiled: CompiledPack): SetFacts {
  const size = parseBetween(form.size, numberBounds.size, true);
  const age = parseBetween(form.age, numberBounds.age);
  const family = compiled.pack.families.find(({ id }) => id === form.family);
  return {
    layout:
      form.layout === 'not-sure' ? { probabilities: layoutProbabilitiesByLooks(compiled.pack, form.looks, family?.layouts) } : form.layout,
    ...(family ? { family: family.id } : {}),
    ...given('model', form.model),
    ...given('version', form.version),
    ...(size === undefined ? {} : { sizeInch: size }),
    ...(age === undefined ? {} : { ageYears: age }),
  };
}

/** The entries, in order; what can't be read yet is left out. */
export function bodiesOf(form: IntakeForm, compiled: CompiledPack, currency: string): Body[] {
  const seen = form.blinkTaken ? undefined : parseSeen(form.blink);
  const blink = form.blinkTaken ?? (seen && takenOfSeen(seen, form.blinkTwice));
  const limit = parseAmount(form.limit, currency);
  const fee = parseAmount(form.checkFee, currency);
  const minutes = parseBetween(form.limitMinutes, numberBounds.limitMinutes, true);
  const opened: BodyOf<'job.opened'> = {
    kind: 'job.opened',
    v: 3,
    set: setFactsOf(form, compiled),
    ...(form.condition.length > 0 ? { condition: [...form.condition] } : {}),
    ...given('earlier', form.earlier),
    ...(form.earlierBy === '' ? {} : { earlierBy: form.earlierBy }),
    ...(form.earlierDid.length > 0 ? { earlierDid: [...form.earlierDid] } : {}),
    ...(form.accessories.length > 0 ? { accessories: [...form.accessories] } : {}),
    ...given('otherAccessories', form.otherAccessories),
    ...(form.warranty === 'unknown' ? {} : { warranty: form.warranty }),
    ...(form.mayLoseData === '' ? {} : { mayLoseData: form.mayLoseData === 'yes' }),
    ...(form.language === '' ? {} : { language: form.language }),
    ...given('needs', form.needs),
    ...given('canDoWithout', form.canDoWithout),
    ...(Object.keys(form.looks).length > 0 ? { looks: { ...form.looks } } : {}),
  };
  const bodies: Body[] = [opened];
  if (form.symptoms.length > 0) {
    bodies.push({
      kind: 'symptom.reported',
      v: 2,
      symptoms: [...form.symptoms],
      ...given('words', form.words),
      ...(form.often === '' ? {} : { often: form.often }),
      ...(form.temperature === '' ? {} : { temperature: form.temperature }),
      ...given('since', form.since),
      ...given('after', form.after),
    });
  }
  for (const { text, source, assembly } of form.theories) {
    if (filled(text)) bodies.push({ kind: 'theory.told', v: 1, source, text: text.trim(), ...(assembly === '' ? {} : { assembly }) });
  }
  if (filled(form.shelf)) bodies.push({ kind: 'set.shelved', v: 1, shelf: form.shelf.trim() });
  if (limit !== undefined || fee !== undefined || minutes !== undefined) {
    bodies.push({
      kind: 'limit.agreed',
      v: 2,
      ...(limit === undefined ? {} : { limit: { amountMinor: limit, currency } }),
      ...(minutes === undefined ? {} : { minutes }),
      ...(fee === undefined ? {} : { checkFee: { amountMinor: fee, currency } }),
    });
  }
  if (filled(form.promised)) bodies.push({ kind: 'date.promised', v: 1, on: form.promised });
  if (blink) bodies.push(blinkBody(blink));
  for (const { test, of, outcome } of form.answers) {
    bodies.push({ kind: 'test.answered', v: 2, test, outcome, sure: 'sure', ...(of === undefined ? {} : { of }) });
  }
  bodies.push(...form.quick);
  for (const { id, of } of form.photos) bodies.push({ kind: 'photo.added', v: 2, photo: id, of });
  for (const text of form.notes) bodies.push({ kind: 'note.added', v: 1, text });
  return bodies;
}

/** The request to the server. Ids and time are the caller's. */
export function requestOf(form: IntakeForm, bodies: readonly Body[], by: string, at: string, newId: () => string): NewJobInput {
  const { maker, model, serial, name, contact } = form;
  const customer = form.ownSet ? null : form.customerId === '' ? { name, contact } : { id: form.customerId };
  return {
    id: form.id,
    by,
    customer,
    plate: { maker, model, serial },
    // Plain data: a form's proxies can't be stored.
    entries: bodies.map((body) => ({ id: newId(), at, basedOn: 0, body: JSON.parse(JSON.stringify(body)) as typeof body })),
  };
}
