/** What a customer takes home, in their language: quote, report and bill. All their words are in contract/words/customer.ts. */
import { customerWords, printMoney, say, taxRuleOf, type CustomerLanguage, type CustomerWords } from '@veglia/contract';
import {
  curingStep,
  flashSessions,
  invoiceOf,
  keptContent,
  liveEntries,
  proofOfRepair,
  taxOf,
  type BodyOf,
  type EntryKind,
  type InvoiceLine,
  type Money,
  type TaxRule,
  type TaxSums,
} from '@veglia/core';
import type { Column, Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { mm, setName, type PaperFacts } from './papers.ts';

/** What the papers of one job share. */
interface Ground {
  readonly facts: PaperFacts;
  readonly w: CustomerWords;
  readonly language: CustomerLanguage;
  readonly live: ReturnType<typeof liveEntries>;
  readonly last: <K extends EntryKind>(kind: K) => BodyOf<K> | undefined;
  readonly all: <K extends EntryKind>(kind: K) => BodyOf<K>[];
  readonly money: (money: Money) => string;
  readonly date: (iso: string) => string;
  readonly assembly: (id: string) => string;
}

/** The language somebody asked for, or the one the last quote was in, the customer’s, the shop’s. */
export function languageOf(facts: PaperFacts, asked: CustomerLanguage | undefined): CustomerLanguage {
  const live = liveEntries(facts.entries).map(({ body }) => body);
  const quote = live.findLast((body) => body.kind === 'quote.sent');
  const opened = live.find((body) => body.kind === 'job.opened');
  return (
    asked ??
    (quote?.kind === 'quote.sent' ? quote.language : undefined) ??
    (opened?.kind === 'job.opened' ? opened.language : undefined) ??
    facts.shop.customerLanguage
  );
}

function groundOf(facts: PaperFacts, language: CustomerLanguage): Ground {
  const live = liveEntries(facts.entries);
  const bodies = live.map(({ body }) => body);
  return {
    facts,
    w: customerWords[language],
    language,
    live,
    last: <K extends EntryKind>(kind: K) => bodies.findLast((body) => body.kind === kind) as BodyOf<K> | undefined,
    all: <K extends EntryKind>(kind: K) => bodies.filter((body) => body.kind === kind) as BodyOf<K>[],
    money: (money) => printMoney(money, 'exact', language),
    date: (iso) => new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso)),
    assembly(id) {
      const name = facts.compiled.pack.assemblies.find((one) => one.id === id)?.name;
      return name?.[language] ?? name?.en ?? id;
    },
  };
}

function section(title: string, lines: readonly string[]): Content[] {
  const said = lines.filter((one) => one !== '');
  if (said.length === 0) return [];
  return [{ stack: [{ text: title, bold: true }, ...said.map((text): Content => ({ text }))], margin: [0, 0, 0, 10] }];
}

/** Lines with a box to be ticked by hand: drawn, because the font has no such sign. */
function ticked(title: string, lines: readonly string[]): Content[] {
  const box = (): Column => ({ canvas: [{ type: 'rect', x: 0, y: 2, w: 9, h: 9 }], width: 16 });
  return lines.length === 0
    ? []
    : [{ stack: [{ text: title, bold: true }, ...lines.map((text): Content => ({ columns: [box(), { text }] }))], margin: [0, 0, 0, 10] }];
}

/** Shop, code, title, customer and set: the head of each paper. */
function head({ facts, w }: Ground, title: string, under: readonly string[]): Content[] {
  const { job, shop } = facts;
  return [
    {
      columns: [
        [{ text: shop.shopName, bold: true, fontSize: 14 }, { text: shop.shopContact }],
        { qr: facts.address, fit: mm(26), width: mm(28), eccLevel: 'M' },
      ],
    },
    { text: title, fontSize: 18, bold: true, margin: [0, 10, 0, 2] },
    ...under.map((text): Content => ({ text })),
    {
      margin: [0, 10, 0, 2],
      columns: [
        section(w.common.customer, job.customer === null ? ['–'] : [job.customer.name, job.customer.contact].filter((one) => one !== '')),
        section(w.common.set, [
          setName(facts),
          job.plate.serial === '' ? '' : say(w.common.serial, { serial: job.plate.serial }),
          say(w.common.job, { n: job.number }),
        ]),
      ],
    },
  ];
}

const page = (title: string, content: Content[]): TDocumentDefinitions => ({
  pageSize: 'A4',
  pageMargins: [mm(22), mm(18), mm(22), mm(18)],
  defaultStyle: { font: 'Roboto', fontSize: 11, lineHeight: 1.15 },
  info: { title },
  content,
});

interface PricedLine {
  readonly text: string;
  readonly amountMinor: number;
}
/** Lines with amounts at the right, and below them net, tax and total as the shop stated its prices. */
function amounts({ w, money }: Ground, lines: readonly PricedLine[], currency: string, rule: TaxRule): Content[] {
  const sums: TaxSums = taxOf(
    lines.map(({ amountMinor }) => ({ amountMinor, basisPoints: rule.basisPoints })),
    rule.held,
  );
  const amount = (amountMinor: number): Content => ({ text: money({ amountMinor, currency }), alignment: 'right' });
  const taxes = sums.rates.filter(({ basisPoints }) => basisPoints > 0);
  const percent = (basisPoints: number): string => String(basisPoints / 100);
  return [
    {
      layout: 'lightHorizontalLines',
      table: {
        widths: ['*', 'auto'],
        body: [
          ...lines.map(({ text, amountMinor }): Content[] => [{ text }, amount(amountMinor)]),
          ...(rule.held ? [] : [[{ text: w.sum.net } as Content, amount(sums.net)]]),
          ...(rule.held
            ? []
            : taxes.map(({ basisPoints, tax }): Content[] => [{ text: say(w.sum.tax, { percent: percent(basisPoints) }) }, amount(tax)])),
          [
            { text: w.sum.total, bold: true },
            { text: money({ amountMinor: sums.total, currency }), bold: true, alignment: 'right' },
          ],
          ...(rule.held
            ? taxes.map(({ basisPoints, tax }): Content[] => [
                { text: say(w.sum.taxHeld, { percent: percent(basisPoints) }), fontSize: 9 },
                { text: money({ amountMinor: tax, currency }), alignment: 'right', fontSize: 9 },
              ])
            : []),
        ],
      },
      margin: [0, 4, 0, 4],
    },
    ...(taxes.length > 0 ? [{ text: w.sum.rounding, fontSize: 9, margin: [0, 0, 0, 10] } satisfies Content] : []),
  ];
}

/** A line of a quote as a customer reads it. */
function quoted(
  { w, assembly }: Ground,
  { what, minutes, assembly: of, number }: NonNullable<BodyOf<'quote.sent'>['lines']>[number],
): string {
  if (what === 'labour' && minutes !== undefined) return say(w.labour, { n: minutes });
  return [w.line[what], of === undefined ? '' : assembly(of), number ?? ''].filter((one) => one !== '').join(', ');
}

/** The last quote. `proven`: what was found; otherwise what it most likely is. */
export function quote(
  facts: PaperFacts,
  language: CustomerLanguage,
  cause: { readonly assembly: string; readonly proven: boolean } | undefined,
): TDocumentDefinitions {
  const ground = groundOf(facts, language);
  const { w, money, date, last, live } = ground;
  const sent = live.findLast(({ body }) => body.kind === 'quote.sent');
  const body = sent?.body.kind === 'quote.sent' ? sent.body : undefined;
  const fee = last('limit.agreed')?.checkFee;
  const under = [
    say(w.quote.date, { date: date(sent?.at ?? facts.job.openedAt) }),
    ...(body?.validUntil === undefined ? [] : [say(w.quote.validUntil, { date: date(body.validUntil) })]),
  ];
  return page(`${w.quote.title} ${facts.job.number}`, [
    ...head(ground, w.quote.title, under),
    ...section(w.report.reported, [symptoms(ground)]),
    ...section(
      w.quote.found,
      cause
        ? [
            say(cause.proven ? w.quote.proven : w.quote.likely, { what: ground.assembly(cause.assembly) }),
            cause.assembly === 'panel' ? w.quote.panel : '',
          ]
        : [],
    ),
    ...(body
      ? [
          ...((body.lines?.length ?? 0) > 0
            ? amounts(
                ground,
                (body.lines ?? []).map((line) => ({ text: quoted(ground, line), amountMinor: line.amount.amountMinor })),
                body.total.currency,
                body.tax ?? taxRuleOf(facts.shop),
              )
            : section(w.sum.total, [money(body.total)])),
          ...(body.upTo && body.upTo.amountMinor > body.total.amountMinor
            ? section(w.sum.upTo, [say(w.quote.range, { low: money(body.total), high: money(body.upTo) })])
            : []),
          ...ticked(
            w.quote.options,
            (body.options ?? []).map((one) => w.option[one]),
          ),
          ...section(w.quote.flaw, [body.flaw ?? '']),
        ]
      : []),
    ...(fee ? [{ text: say(w.quote.fee, { amount: money(fee) }), margin: [0, 0, 0, 10] } satisfies Content] : []),
    { text: `${w.quote.accept}: ______________________________`, margin: [0, 24, 0, 0] },
  ]);
}

const symptoms = ({ all, facts, language }: Ground): string =>
  [...new Set(all('symptom.reported').flatMap((body) => body.symptoms))]
    .map((id) => {
      const name = facts.compiled.pack.symptoms.find((one) => one.id === id)?.name;
      return name?.[language] ?? name?.en ?? id;
    })
    .join(', ');

/** What was wrong, how it was found, what was done, how it was tested, what remains. */
export function report(facts: PaperFacts, language: CustomerLanguage): TDocumentDefinitions {
  const ground = groundOf(facts, language);
  const { w, date, last, all, live, assembly } = ground;
  const { compiled, job } = facts;
  const closing = live.findLast(({ body }) => body.kind === 'job.closed');
  const closed = closing?.body.kind === 'job.closed' ? closing.body : undefined;
  const found = last('fault.confirmed');
  const fault = found?.fault === undefined ? undefined : compiled.faults.get(compiled.currentId(found.fault))?.name;
  const said = fault?.[language] ?? (language === 'en' ? fault?.en : undefined);
  const repairs = all('repair.done').flatMap((body) => {
    const repair = compiled.pack.repairs.find(({ id }) => id === compiled.currentId(body.repair));
    return repair && body.result !== 'not-tried' ? [say(w.repair[repair.kind], { what: assembly(repair.assembly) })] : [];
  });
  const steps = all('test.answered').flatMap((body) => {
    const step = curingStep(body, compiled);
    if (!step) return [];
    const did = (verb: string): boolean => step.do.some((one) => verb in one);
    if (did('clean')) return [say(w.repair.reseat, { what: assembly(body.of ?? 'outside') })];
    if (did('supply')) return [say(w.repair['put-right'], { what: assembly('outside') })];
    return [did('unplug') ? w.repair.drain : w.report.settings];
  });
  const written = flashSessions(live).flatMap(({ opened: { name }, areas }) => {
    const done = areas.filter(({ programmed }) => programmed !== undefined);
    // What was read from the set itself is what was written back.
    const own = done.length > 0 && done.every((area) => keptContent(area)?.sha256 === area.programmed);
    return done.length === 0 ? [] : [[say(w.report.firmware, { what: name }), own ? w.report.ownKept : ''].filter(Boolean).join('. ')];
  });
  const firmware = [...all('flash.done').map(({ image }) => say(w.report.firmware, { what: image })), ...written];
  const proof = proofOfRepair(live, { stage: 1 }, compiled);
  const passed = proof.items.filter(({ state, kind }) => state === 'passed' && kind === 'check');
  const soak = Math.max(0, ...all('proof.soaked').map(({ minutes, result }) => (result === 'passed' ? minutes : 0)));
  const warranty = closed?.warrantyDays ?? 0;
  const until = closing === undefined ? '' : date(new Date(new Date(closing.at).getTime() + warranty * 86_400_000).toISOString());
  const remains = [closed?.remains ?? '', last('quote.sent')?.flaw ?? ''];
  const old = last('set.collected')?.oldPart;
  return page(`${w.report.title} ${job.number}`, [
    ...head(ground, w.report.title, [
      closing === undefined
        ? say(w.report.open, { from: date(job.openedAt) })
        : say(w.report.dates, { from: date(job.openedAt), to: date(closing.at) }),
      ...(closed ? [w.outcome[closed.outcome]] : []),
    ]),
    ...section(w.report.reported, [symptoms(ground)]),
    ...section(w.report.wrong, found ? [[assembly(found.assembly), said ?? ''].filter(Boolean).join(': ')] : [w.report.unknown]),
    ...section(w.report.how, [
      found?.how === undefined ? '' : w.how[found.how],
      say(w.report.steps, {
        tests: all('test.answered').length,
        readings: all('reading.taken').length + all('instrument.used').length,
      }),
    ]),
    ...section(
      w.report.done,
      orElse(
        [
          ...new Set([
            ...repairs,
            ...steps,
            ...all('part.fitted').map((body) =>
              say(w.report.part, { what: assembly(body.assembly), number: body.number, source: w.source[body.source] }),
            ),
            ...firmware,
          ]),
        ],
        w.report.nothingDone,
      ),
    ),
    ...section(w.report.seen, [
      passed.map(({ rule }) => rule.name[language] ?? rule.name.en).join('; '),
      proof.starts.good > 0 ? say(w.report.starts, { n: proof.starts.good, cold: proof.starts.cold }) : '',
      soak > 0 ? say(w.report.soak, { hours: Math.round(soak / 6) / 10 }) : '',
    ]),
    ...section(w.report.remains, remains),
    ...section(
      w.report.modified,
      all('modification.recorded').map(({ name, lost }) => (lost ? say(w.report.modification, { name, lost }) : name)),
    ),
    ...section(w.report.oldPart, [old === undefined ? '' : w.oldPart[old]]),
    ...section(w.report.warranty, [warranty > 0 ? say(w.report.warrantyText, { days: warranty, date: until }) : w.report.noWarranty]),
    ...section(w.report.cautions, [w.report.caution]),
    { text: `${w.report.sign}: ______________________________`, margin: [0, 18, 0, 0] },
  ]);
}
const orElse = (lines: readonly string[], none: string): readonly string[] => (lines.length > 0 ? lines : [none]);

/** A line of a bill as a customer reads it. */
function billed({ w, assembly }: Ground, { what, minutes, assembly: of, number }: InvoiceLine): string {
  if (what === 'labour' && minutes !== undefined) return say(w.labour, { n: Math.round(minutes) });
  return [w.line[what], of === undefined ? '' : assembly(of), number ?? ''].filter((one) => one !== '').join(', ');
}

/** The bill of a closed job. Its number is the job’s, and how often it was closed where that is more than once. */
export function invoice(facts: PaperFacts, language: CustomerLanguage): TDocumentDefinitions {
  const ground = groundOf(facts, language);
  const { w, date, last, live } = ground;
  const { job } = facts;
  const closings = live.filter(({ body }) => body.kind === 'job.closed');
  const bill = invoiceOf(facts.entries, job.settings, taxRuleOf(facts.shop));
  const number = `${job.number}${closings.length > 1 ? `-${closings.length}` : ''}`;
  const paid = last('set.collected');
  return page(`${w.invoice.title} ${number}`, [
    ...head(ground, w.invoice.title, [
      say(w.invoice.number, { number }),
      say(w.invoice.date, { date: date(closings.at(-1)?.at ?? job.openedAt) }),
      say(w.invoice.for, { set: setName(facts), n: job.number }),
    ]),
    ...(bill.lines.length === 0
      ? [{ text: w.sum.nothing } satisfies Content]
      : amounts(
          ground,
          bill.lines.map((line) => ({ text: billed(ground, line), amountMinor: line.amountMinor })),
          job.settings.currency,
          bill.rule,
        )),
    ...(paid?.payment === undefined ? [] : [{ text: say(w.sum.paid, { how: w.payment[paid.payment] }) } satisfies Content]),
  ]);
}
