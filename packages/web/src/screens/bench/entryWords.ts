/** Ledger entries as lines a person reads. */
import { codeInWords, findingSentence, instrumentWords, words as contractWords } from '@veglia/contract';
import { proofName, type BodyOf, type CompiledPack, type Entry } from '@veglia/core';
import { useI18n } from 'vue-i18n';
import { money, useNames } from '../../names.ts';
import { textOf } from '../../stores/packs.ts';
import { flashLine } from '../flash/entryLine.ts';

export interface EntryLine {
  readonly title: string;
  /** Free text that belongs to it. */
  readonly detail?: string | undefined;
  readonly thinkSo?: boolean;
}

/** Choices of an instrument that were left as they were. */
const saysNothing = new Set(['no', 'unread', 'unlooked', 'unmeasured', 'not-yet']);

/** Of a part that the job wanted. */
function numberOf(want: string, entries: readonly Entry[]): string {
  const body = entries.find((one) => one.body.kind === 'part.wanted' && one.body.want === want)?.body;
  return body?.kind === 'part.wanted' ? body.number : '?';
}

const units = { volts: 'V', ohms: 'Ω', amperes: 'A', celsius: '°C' } as const;

export function useEntryWords(compiled: () => CompiledPack | undefined): (entry: Entry, entries: readonly Entry[]) => EntryLine {
  const { t, d } = useI18n();
  const names = useNames(compiled);
  const places = (ids: readonly string[] = []): string => ids.map((id) => names.place(id)).join(', ');
  const pairs = (list: readonly (readonly [string, string])[] = []): string =>
    list.map(([from, to]) => `${names.place(from)} – ${names.place(to)}`).join(', ');
  /** In the order in which it was done. */
  const changeInWords = (body: BodyOf<'set.changed'>): string => {
    const volts = Object.entries(body.volts ?? {}).map(([point, value]) => `${names.place(point)} ${value} V`);
    const said: [boolean | undefined, string][] = [
      [body.plugged === false, t('bench.unplugged')],
      [body.stage !== undefined, names.stage(body.stage ?? '')],
      [body.railsDown === true, t('entry.changed.down')],
      [body.verified === true, t('entry.changed.read', { volts: volts.join(', ') })],
      [body.strap === true, t('bench.state.strapOn')],
      [(body.restored ?? []).length > 0, t('entry.changed.restored', { what: places(body.restored) })],
      [(body.unbridged ?? []).length > 0, t('entry.changed.unbridged', { what: pairs(body.unbridged) })],
      [(body.untaped ?? []).length > 0, t('entry.changed.untaped', { what: places(body.untaped) })],
      [(body.pulled ?? []).length > 0, t('entry.changed.pulled', { what: places(body.pulled) })],
      [(body.bridged ?? []).length > 0, t('entry.changed.bridged', { what: pairs(body.bridged) })],
      [(body.taped ?? []).length > 0, t('entry.changed.taped', { what: places(body.taped) })],
      [(body.refitted ?? []).length > 0, t('entry.changed.refitted', { what: (body.refitted ?? []).join(', ') })],
      [(body.lifted ?? []).length > 0, (body.lifted ?? []).map(({ name, what }) => t(`bench.left.${what}`, { what: name })).join(', ')],
      [body.strap === false, t('bench.state.strapOff')],
      [body.plugged === true, t('bench.plugged')],
    ];
    const line = said.flatMap(([is, text]) => (is ? [text] : [])).join(', ');
    return line.charAt(0).toUpperCase() + line.slice(1);
  };
  const proofItem = (id: string): string => {
    const pack = compiled();
    return pack ? textOf(proofName(id, pack)) : id;
  };
  const layoutName = (id: string): string => textOf(compiled()?.layouts.get(id)?.name) || id;
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
      case 'consent.given':
        return { title: t(`entry.consent.${body.to}`), detail: body.who };
      case 'limit.agreed': {
        const what = [
          body.limit ? t('entry.limit.without', { amount: money(body.limit) }) : '',
          body.minutes === undefined ? '' : t('entry.limit.minutes', { n: body.minutes }),
          body.checkFee ? t('entry.limit.fee', { amount: money(body.checkFee) }) : '',
        ];
        return { title: t('entry.limit.agreed', { what: what.filter(Boolean).join(', ') }) };
      }
      case 'layout.found':
        return { title: t('entry.layout.found', { layout: typeof body.layout === 'string' ? layoutName(body.layout) : '?' }) };
      case 'photo.added':
        return { title: t('entry.photo.added', { of: t(`photoOf.${body.of ?? 'other'}`) }), detail: body.caption };
      case 'reading.taken':
        return {
          title: t('entry.reading.taken', { at: body.pin ?? names.place(body.at), value: `${body.value} ${units[body.quantity]}` }),
        };
      case 'board.found':
        return { title: t('entry.board.found', { assembly: names.assembly(body.assembly), number: body.number }) };
      case 'modification.recorded':
        return { title: t('entry.modification.recorded', { name: body.name }), detail: body.undo };
      case 'instrument.used': {
        const { name = body.instrument } = instrumentWords.en.instrument[body.instrument] ?? {};
        const read = Object.entries(body.read)
          .filter(([, value]) => !saysNothing.has(value))
          .map(([id, value]) => `${instrumentWords.en.field[id] ?? id}: ${instrumentWords.en.choice[value] ?? value}`);
        return {
          title: `${name}: ${body.findings.map((one) => findingSentence(one)).join(' ')}`,
          detail: read.join(', '),
        };
      }
      case 'set.changed':
        return { title: changeInWords(body) || t('entry.set.changed'), detail: body.anyway ? t('entry.set.anyway') : undefined };
      case 'wait.started':
        return { title: t('entry.wait.started', { name: body.name, n: body.minutes }) };
      case 'wait.ended':
        return { title: t('entry.wait.ended', { name: body.name }) };
      case 'text.redacted':
        return { title: t('entry.text.redacted') };
      case 'set.shelved':
        return { title: t('entry.set.shelved', { shelf: body.shelf }) };
      case 'theory.told':
        return { title: t('entry.theory.told', { source: t(`theorySource.${body.source}`) }), detail: body.text };
      case 'symptom.reported':
        return {
          title: t(body.seen ? 'entry.symptom.seen' : 'entry.symptom.reported', {
            what: body.symptoms.map((id) => names.symptom(id)).join(', '),
          }),
          detail: body.words,
        };
      case 'blink.read':
        return {
          title: t(body.groups.length === 0 ? 'entry.blink.light' : body.cycles >= 2 ? 'entry.blink.read' : 'entry.blink.once', {
            groups: codeInWords(body, contractWords.en),
            cycles: body.cycles,
          }),
          detail: [
            body.how === undefined ? '' : t(`entry.blink.how.${body.how}`),
            body.corrected ? t('entry.blink.corrected') : '',
            body.out === undefined ? '' : t('entry.blink.out', { what: names.assembly(body.out) }),
            body.afterClick === undefined ? '' : t(`blink.afterClick.${body.afterClick}`),
            body.trace ? t('entry.blink.kept') : '',
          ]
            .filter((part) => part !== '')
            .join(' '),
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
      case 'part.wanted':
        return {
          title: t('entry.part.wanted', { assembly: names.assembly(body.assembly), number: body.number, price: money(body.price) }),
          detail: [body.supplier ?? '', t(`partSource.${body.source}`), body.unproven ? t('parts.guess') : ''].filter(Boolean).join(', '),
        };
      case 'part.ordered':
        return {
          title: t('entry.part.ordered', { number: numberOf(body.want, entries), supplier: body.supplier, price: money(body.price) }),
          detail: [
            body.expectedOn ? t('parts.expected', { day: d(new Date(`${body.expectedOn}T12:00:00`), 'weekday') }) : '',
            body.override ?? '',
          ]
            .filter(Boolean)
            .join('; '),
        };
      case 'part.arrived':
        return { title: t('entry.part.arrived', { number: numberOf(body.want, entries), result: t(`parts.arrived.${body.result}`) }) };
      case 'part.returned':
        return {
          title: t('entry.part.returned', { number: numberOf(body.want, entries) }),
          detail: [t(`parts.sendBack.why.${body.reason}`), body.refund ? money(body.refund) : ''].filter(Boolean).join(', '),
        };
      case 'part.dropped':
        return { title: t('entry.part.dropped', { number: numberOf(body.want, entries) }) };
      case 'flash.done':
        return {
          title: t('entry.flash.done', { memory: t(`memory.${body.memory}`), image: body.image, result: t(`flashResult.${body.result}`) }),
        };
      case 'flash.step':
        return flashLine(t, body, entries);
      case 'note.added':
        return { title: t('entry.note.added'), detail: body.text };
      case 'entry.retracted': {
        const target = entries.find((other) => other.id === body.entry || other.seq === body.entry);
        return { title: t('entry.entry.retracted', { seq: target?.seq ?? body.entry }), detail: body.reason };
      }
      case 'proof.checked':
        return { title: t('entry.proof.checked', { what: proofItem(body.item), result: t(`proof.state.${body.result}`) }) };
      case 'proof.skipped':
        return { title: t('entry.proof.skipped', { what: proofItem(body.item) }), detail: t(`proof.skip.${body.reason}`) };
      case 'start.timed':
        return {
          title: t(body.started ? 'entry.start.good' : 'entry.start.failed'),
          detail: [body.cold ? t('entry.start.cold') : '', body.seconds === undefined ? '' : t('proof.start.running', { s: body.seconds })]
            .filter((one) => one !== '')
            .join(', '),
        };
      case 'proof.soaked':
        return { title: t('entry.proof.soaked', { minutes: body.minutes, result: t(`proof.state.${body.result}`) }) };
      case 'fault.confirmed':
        return {
          title: t('entry.fault.confirmed', { what: names.assembly(body.assembly) }),
          detail: [body.fault === undefined ? '' : names.fault(body.fault), body.how ? t(`confirmed.${body.how}`) : '', body.note ?? '']
            .filter(Boolean)
            .join('; '),
        };
      case 'job.closed':
        return {
          title: t('entry.job.closed', { outcome: t(`outcome.${body.outcome}`), minutes: body.minutes }),
          detail: [body.remains ?? '', ...(body.modified ?? [])].filter((one) => one !== '').join('; '),
        };
      case 'trial.started':
        return { title: t('trial.runs', { day: d(new Date(`${body.until}T12:00:00`), 'weekday') }), detail: body.why };
      case 'trial.ended':
        return { title: t(`trial.${body.result}`) };
      case 'set.collected':
        return {
          title: t('entry.set.collected'),
          detail: [
            body.who ?? '',
            body.payment ? t(`handover.payments.${body.payment}`) : '',
            body.oldPart ? t(`handover.oldParts.${body.oldPart}`) : '',
          ]
            .filter(Boolean)
            .join('; '),
        };
      case 'comeback.linked':
        return {
          title: t('comeback.linked', {
            n: body.number,
            fault: t(`comeback.faults.${body.fault}`),
            pays: t(`comeback.payers.${body.pays}`),
          }),
        };
      case 'message.sent':
        return {
          title: t('entry.message.sent', { about: t(`handover.template.${body.template}`) }),
          detail: t(`handover.sent.${body.result}`),
        };
      case 'date.promised':
        return { title: t('entry.date.promised', { on: d(new Date(`${body.on}T12:00:00`), 'weekday') }) };
      case 'heat.round':
        return {
          title: t('entry.heat.round', {
            left: names.place(body.left),
            result: t(`heat.result.${body.result}`),
            to: body.toCelsius,
            room: body.roomCelsius,
          }),
        };
      case 'stimulus.tried':
        return {
          title: t('entry.stimulus.tried', {
            way: t(`stimulus.way.${body.way}`),
            at: names.place(body.at),
            effect: t(`stimulus.effect.${body.effect}`),
          }),
          detail: body.note,
        };
      case 'teardown.taken':
      case 'teardown.refitted':
        return {
          title: t(`entry.teardown.${body.kind === 'teardown.taken' ? 'taken' : 'refitted'}`, {
            part:
              textOf(
                compiled()
                  ?.pack.stages.flatMap((stage) => stage.teardown ?? [])
                  .find(({ id }) => id === body.part)?.name,
              ) || body.part,
            n: body.screws === undefined ? '' : ` (${body.screws})`,
          }),
          detail: body.kind === 'teardown.taken' ? body.note : undefined,
        };
      case 'pack.pinned':
        return { title: t('entry.pack.pinned', { counts: body.snapshot ?? '?' }) };
      case 'job.reopened':
        return { title: t('entry.job.reopened'), detail: body.reason };
      default:
        return { title: t('entry.other', { kind: body.kind }) };
    }
  };
}
