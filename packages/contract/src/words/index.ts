import type { BodyOf } from '@veglia/core';
import { customerDe, customerEn, type CustomerWords } from './customer.ts';
import { en, type Words } from './en.ts';
import { flashEn, type FlashWords } from './flash.ts';
import { instrumentsEn, type InstrumentsWords } from './instruments.ts';

export { fitSentence, flashSentence, type FlashWords } from './flash.ts';
export type { Words } from './en.ts';
/** Languages there are sentences in. */
export const languages = ['en'] as const;
/** One of `languages`. */
export type Language = (typeof languages)[number];
/** Sentences by language. */
export const words: Record<Language, Words> = { en };

/** Words of the instruments by language. */
export const instrumentWords: Record<Language, InstrumentsWords> = { en: instrumentsEn };

/** Words of work on memories by language. */
export const flashWords: Record<Language, FlashWords> = { en: flashEn };

/** A language that customers are written to in. */
export type CustomerLanguage = NonNullable<BodyOf<'job.opened'>['language']>;
/** Words of what customers read, by language. */
export const customerWords: Record<CustomerLanguage, CustomerWords> = { en: customerEn, de: customerDe };
export type { CustomerWords };

/** Fills the braces of a sentence; a missing value leaves a dash, so that a gap shows. */
export function say(sentence: string, values: Readonly<Record<string, string | number | undefined>> = {}): string {
  return sentence.replace(/\{(\w+)\}/g, (_, name: string) => String(values[name] ?? '—'));
}
