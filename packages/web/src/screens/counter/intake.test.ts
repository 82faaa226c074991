import { describe, expect, test } from '@jest/globals';
import { compilePack, readBody } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { fileURLToPath } from 'node:url';
import { newJobSchema } from '@veglia/contract';
import { blankIntake, bodiesOf, checkIntake, intakeOfDraft, isBlank, requestOf, type IntakeForm } from './intake.ts';

const compiled = compilePack(await readPackFolder(fileURLToPath(new URL('../../../../../knowledge', import.meta.url))));
const id = '0192f000-0000-7000-8000-000000000001';
const form = (change: Partial<IntakeForm> = {}): IntakeForm => ({ ...blankIntake(id), ...change });
const bodies = (change: Partial<IntakeForm>) => bodiesOf(form(change), compiled, 'EUR');

describe('what is typed at the counter', () => {
  const whole: Partial<IntakeForm> = {
    symptoms: ['sound-dark'],
    words: ' it only talks ',
    often: 'sometimes',
    temperature: 'cold',
    since: 'Sunday',
    after: 'the storm',
    blink: '3-1',
    blinkTwice: true,
    maker: 'Quorvane',
    family: 'quorvane.qk3',
    size: '50',
    age: '6,5',
    condition: ['storm'],
    earlierDid: ['boards-swapped'],
    theories: [
      { text: 'the strips', source: 'video', assembly: 'strips' },
      { text: ' ', source: 'web', assembly: '' },
    ],
    limit: '120',
    limitMinutes: '45',
    checkFee: '24,50',
    mayLoseData: 'no',
    language: 'de',
    answers: [{ test: 'torch', outcome: 'faint-picture' }],
    notes: ['smells of fish'],
    ownSet: true,
  };

  test('amounts to entries the ledger takes, in the order they are told', () => {
    const made = bodies(whole);
    expect(made.map(({ kind }) => kind)).toEqual([
      'job.opened',
      'symptom.reported',
      'theory.told',
      'limit.agreed',
      'blink.read',
      'test.answered',
      'note.added',
    ]);
    for (const body of made) expect(readBody(body, 'form')).toEqual({ body });
    expect(made[0]).toMatchObject({
      set: { family: 'quorvane.qk3', sizeInch: 50, ageYears: 6.5 },
      mayLoseData: false,
      language: 'de',
      earlierDid: ['boards-swapped'],
    });
    expect(made[1]).toMatchObject({ words: 'it only talks', often: 'sometimes', since: 'Sunday' });
    expect(made[3]).toMatchObject({ limit: { amountMinor: 12_000, currency: 'EUR' }, minutes: 45, checkFee: { amountMinor: 2450 } });
    expect(newJobSchema.safeParse(requestOf(form(whole), made, id, '2026-03-02T12:00:00.000Z', () => id)).success).toBe(true);
  });

  test('a layout not chosen is probabilities by looks, narrowed to the family’s layouts', () => {
    const layout = (change: Partial<IntakeForm>) => {
      const [opened] = bodies(change);
      return opened?.kind === 'job.opened' ? opened.set.layout : undefined;
    };
    expect(layout({ layout: 'oled' })).toBe('oled');
    const byLooks = layout({ looks: { front: 'plate', thickness: 'hand' } }) as { probabilities: Record<string, number> };
    expect(byLooks.probabilities.plasma).toBeGreaterThan(0.6);
    expect(Object.keys((layout({ family: 'quorvane.qk3' }) as { probabilities: object }).probabilities)).toEqual(['led-tcon']);
  });

  test.each<[string, Partial<IntakeForm>, object]>([
    ['nothing at all', {}, { name: '', maker: '', symptoms: '' }],
    ['a size in words', { ...whole, size: 'huge' }, { size: 'huge' }],
    ['an age of a century', { ...whole, age: '100' }, { age: '100' }],
    ['a blink count in words', { ...whole, blink: 'three or so' }, { blink: 'three or so' }],
    ['an amount in words', { ...whole, limit: 'a lot', checkFee: '-3' }, { limit: 'a lot', checkFee: '-3' }],
    ['less than an inch', { ...whole, size: '4' }, { size: '4' }],
    ['a version of 61 letters, where 60 are kept', { ...whole, version: 'v'.repeat(61) }, { version: 'v'.repeat(61) }],
    ['a shelf of 60 letters', { ...whole, shelf: 's'.repeat(60) }, {}],
    ['all of it fine', whole, {}],
    ['somebody who was here before', { ...whole, ownSet: false, customerId: id }, {}],
  ])('%s: what is wrong is told by field', (_, change, errors) => {
    expect(checkIntake(form(change), 'EUR')).toEqual(errors);
  });

  test('half typed, what can’t be read yet is left out and nothing throws', () => {
    expect(bodies({ size: '5', blink: '3 o', limit: 'x', symptoms: [] }).map(({ kind }) => kind)).toEqual(['job.opened']);
  });

  test('a draft comes back as it was; one of another version keeps what fits', () => {
    const draft = JSON.parse(JSON.stringify(form(whole))) as unknown;
    expect(intakeOfDraft(draft, 'other')).toEqual(form(whole));
    expect(intakeOfDraft({ words: 'kept', symptoms: 'dead', gone: 1, size: 50 }, id)).toEqual(form({ words: 'kept' }));
    for (const broken of [null, 'text', 7]) expect(intakeOfDraft(broken, id)).toEqual(form());
    expect(isBlank(form({ checkFee: '25' }))).toBe(true);
    expect(isBlank(form({ words: 'x' }))).toBe(false);
  });
});
