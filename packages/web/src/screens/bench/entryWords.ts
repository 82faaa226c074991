/** Ledger entries as lines a person reads. */
import type { CompiledPack, Entry } from '@veglia/core';
import { useI18n } from 'vue-i18n';
import { money, useNames } from '../../names.ts';

export interface EntryLine {
  readonly title: string;
  /** Free text that belongs to it. */
  readonly detail?: string | undefined;
  readonly thinkSo?: boolean;
}

export function useEntryWords(compiled: () => CompiledPack | undefined): (entry: Entry, entries: readonly Entry[]) => EntryLine {
  const { t } = useI18n();
  const names = useNames(compiled);
  return (entry, entries) => {
    const { body } = entry;
    switch (body.kind) {
      case 'job.opened':
        return {
          title: t('entry.job.opened'),
          detail: [...(body.condition ?? []).map((one) => t(`core.condition.${one}`)), body.earlier ?? ''].filter(Boolean).join('; '),
        };
      case 'quote.sent':
        return { title: t('entry.quote.sent', { low: money(body.total), high: money(body.upTo ?? body.total) }) };
      case 'quote.answered':
        return { title: t('entry.quote.answered', { answer: t(`call.said.${body.answer}`) }), detail: body.who };
      case 'set.shelved':
        return { title: t('entry.set.shelved', { shelf: body.shelf }) };
      case 'theory.told':
        return { title: t('entry.theory.told', { source: t(`theorySource.${body.source}`) }), detail: body.text };
      case 'symptom.reported':
        return {
          title: t('entry.symptom.reported', { what: body.symptoms.map((id) => names.symptom(id)).join(', ') }),
          detail: body.words,
        };
      case 'blink.read':
        return {
          title: t(body.cycles >= 2 ? 'entry.blink.read' : 'entry.blink.once', { groups: body.groups.join('-'), cycles: body.cycles }),
        };
      case 'test.answered':
        return {
          title: t('entry.test.answered', { test: names.test(body.test, body.of), outcome: names.outcome(body.test, body.outcome) }),
          detail: body.raw,
          thinkSo: body.sure === 'think-so',
        };
      case 'caution.read':
        return { title: t('entry.caution.read', { stage: body.stage === undefined ? '' : names.stage(body.stage) }) };
      case 'repair.done':
        return { title: t('entry.repair.done', { repair: names.repair(body.repair), result: t(`result.${body.result}`) }) };
      case 'part.fitted':
        return {
          title: t('entry.part.fitted', { assembly: names.assembly(body.assembly), number: body.number, price: money(body.price) }),
          detail: t(`partSource.${body.source}`),
        };
      case 'flash.done':
        return {
          title: t('entry.flash.done', { memory: t(`memory.${body.memory}`), image: body.image, result: t(`flashResult.${body.result}`) }),
        };
      case 'note.added':
        return { title: t('entry.note.added'), detail: body.text };
      case 'entry.retracted': {
        const target = entries.find((other) => other.id === body.entry || other.seq === body.entry);
        return { title: t('entry.entry.retracted', { seq: target?.seq ?? body.entry }), detail: body.reason };
      }
      case 'fault.confirmed':
        return {
          title: t('entry.fault.confirmed', { what: names.assembly(body.assembly) }),
          detail: [body.fault === undefined ? '' : names.fault(body.fault), body.note ?? ''].filter(Boolean).join('; '),
        };
      case 'job.closed':
        return { title: t('entry.job.closed', { outcome: t(`outcome.${body.outcome}`), minutes: body.minutes }), detail: body.remains };
      case 'pack.pinned':
        return { title: t('entry.pack.pinned', { counts: body.snapshot ?? '?' }) };
      case 'job.reopened':
        return { title: t('entry.job.reopened'), detail: body.reason };
      default:
        return { title: t('entry.other', { kind: body.kind }) };
    }
  };
}
