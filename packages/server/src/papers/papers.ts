/** Label and receipt of a job, as document definitions. All their words are in contract/words. */
import { modificationSvg, printMoney, say, words, type Job, type PaperCode, type ShopSettings } from '@veglia/contract';
import { liveEntries, mayHideSecond, type BodyOf, type CompiledPack, type Entry } from '@veglia/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';

/** What label and receipt are made from. */
export interface PaperFacts {
  readonly job: Pick<Job, 'number' | 'openedAt' | 'customer' | 'plate' | 'settings'>;
  readonly entries: readonly Entry[];
  readonly compiled: CompiledPack;
  readonly shop: ShopSettings;
  /** Where the QR code leads. */
  readonly address: string;
}

const paper = (code: PaperCode, values: Readonly<Record<string, string | number>> = {}): string => say(words.en.paper[code], values);

/** A paper is read in a minute: the whole of a longer text stays in the job. */
const longestText = 800;
const mostTexts = 10;
const clipped = (text: string): string => (text.length > longestText ? `${text.slice(0, longestText).trimEnd()} ${paper('goesOn')}` : text);

/** What the ledger says, the last word of each kind. */
function told({ entries }: PaperFacts): {
  opened: BodyOf<'job.opened'> | undefined;
  complaints: BodyOf<'symptom.reported'>[];
  agreed: BodyOf<'limit.agreed'> | undefined;
  shelf: string | undefined;
  photos: number;
} {
  const live = liveEntries(entries).map(({ body }) => body);
  const last = <K extends (typeof live)[number]['kind']>(kind: K): BodyOf<K> | undefined =>
    live.findLast((body) => body.kind === kind) as BodyOf<K> | undefined;
  return {
    opened: last('job.opened'),
    complaints: live.flatMap((body) => (body.kind === 'symptom.reported' ? [body] : [])),
    agreed: last('limit.agreed'),
    shelf: last('set.shelved')?.shelf,
    photos: live.filter(({ kind }) => kind === 'photo.added').length,
  };
}

/** Maker and model, as far as they are known. */
export const setName = ({ job }: PaperFacts): string => [job.plate.maker, job.plate.model].filter((part) => part !== '').join(' ');

/** Millimetres to points. */
export const mm = (millimetres: number): number => (millimetres / 25.4) * 72;

/** 100 x 60 mm, to be stuck on the back. */
export function label(facts: PaperFacts): TDocumentDefinitions {
  const { opened, shelf } = told(facts);
  const { plate, number } = facts.job;
  const hazards = [...(opened?.condition ?? []).map((one) => words.en.condition[one]), paper('charged')];
  const details = [
    opened?.set.sizeInch === undefined ? '' : paper('size', { n: opened.set.sizeInch }),
    plate.serial === '' ? '' : paper('serial', { serial: plate.serial }),
  ].filter((text) => text !== '');
  return {
    pageSize: { width: mm(100), height: mm(60) },
    pageMargins: [mm(4), mm(4), mm(4), mm(4)],
    defaultStyle: { font: 'Roboto', fontSize: 10 },
    info: { title: paper('job', { n: number }) },
    content: [
      {
        columns: [
          { qr: facts.address, fit: mm(34), width: mm(36), eccLevel: 'M' },
          {
            stack: [
              { text: paper('job', { n: number }), fontSize: 26, bold: true },
              { text: setName(facts), fontSize: 13, bold: true },
              ...details.map((text): Content => ({ text })),
              { text: shelf === undefined ? paper('noShelf') : paper('shelf', { shelf }), fontSize: 13, margin: [0, 4, 0, 0] },
            ],
          },
        ],
      },
      { text: [{ text: `${paper('hazards')}: `, bold: true }, hazards.join('; ')], margin: [0, 4, 0, 0] },
    ],
  };
}

/** A4, for the customer to take along. */
export function receipt(facts: PaperFacts): TDocumentDefinitions {
  const { job, shop, compiled } = facts;
  const { opened, complaints, agreed, photos } = told(facts);
  const symptom = (id: string): string => compiled.pack.symptoms.find((one) => one.id === id)?.name.en ?? id;
  const said = complaints
    .flatMap(({ words: own }) => (own === undefined ? [] : [paper('inWords', { words: clipped(own) })]))
    .slice(0, mostTexts);
  const along = [...(opened?.accessories ?? []).map((one) => words.en.accessory[one]), clipped(opened?.otherAccessories ?? '')].filter(
    (one) => one !== '',
  );
  const seen = (opened?.condition ?? []).map((one) => words.en.condition[one]);
  const terms = [
    ...(agreed?.checkFee ? [paper('checkFee', { amount: printMoney(agreed.checkFee) })] : []),
    ...(agreed?.limit ? [paper('limit', { amount: printMoney(agreed.limit) })] : []),
    ...(agreed?.minutes === undefined ? [] : [paper('minutes', { n: agreed.minutes })]),
    ...(opened?.mayLoseData === undefined ? [] : [paper(opened.mayLoseData ? 'mayLoseData' : 'keepData')]),
    ...(opened?.warranty === 'running' ? [paper('warrantyRunning')] : []),
    ...(mayHideSecond({ entries: facts.entries }, compiled) ? [paper('secondFault')] : []),
    ...(shop.receiptText === '' ? [] : [shop.receiptText]),
  ];
  const section = (title: string, lines: readonly string[]): Content => ({
    stack: [{ text: title, bold: true }, ...lines.map((text): Content => ({ text }))],
    margin: [0, 0, 0, 10],
  });
  return {
    pageSize: 'A4',
    pageMargins: [mm(22), mm(20), mm(22), mm(20)],
    defaultStyle: { font: 'Roboto', fontSize: 11, lineHeight: 1.15 },
    info: { title: `${paper('receipt')}: ${paper('job', { n: job.number })}` },
    content: [
      {
        columns: [
          [{ text: shop.shopName, bold: true, fontSize: 14 }, { text: shop.shopContact }],
          { qr: facts.address, fit: mm(26), width: mm(28), eccLevel: 'M' },
        ],
      },
      { text: paper('receipt'), fontSize: 18, bold: true, margin: [0, 14, 0, 2] },
      { text: `${paper('job', { n: job.number })}. ${paper('takenIn', { date: job.openedAt.slice(0, 10) })}`, margin: [0, 0, 0, 12] },
      section(
        paper('customer'),
        job.customer === null ? [paper('ownSet')] : [job.customer.name, job.customer.contact].filter((one) => one !== ''),
      ),
      section(paper('set'), [
        setName(facts),
        ...(opened?.set.sizeInch === undefined ? [] : [paper('size', { n: opened.set.sizeInch })]),
        ...(job.plate.serial === '' ? [] : [paper('serial', { serial: job.plate.serial })]),
      ]),
      section(paper('complaint'), [complaints.flatMap(({ symptoms }) => symptoms.map(symptom)).join(', '), ...said]),
      section(paper('condition'), [
        seen.length > 0 ? seen.join(', ') : paper('nothingSeen'),
        ...(photos > 0 ? [paper('photos', { n: photos })] : []),
      ]),
      section(paper('cameAlong'), [along.length > 0 ? along.join(', ') : paper('nothingElse')]),
      ...(terms.length > 0 ? [section(paper('agreed'), terms)] : []),
      { text: `${paper('sign')}: ______________________________`, margin: [0, 24, 0, 0] },
    ],
  };
}

/** A4: a label to be cut out and put inside the set, and the record with its drawing. Work inside stays with trained people: both say what was changed. */
export function modification(facts: PaperFacts): TDocumentDefinitions {
  const { job, shop } = facts;
  const all = liveEntries(facts.entries).flatMap(({ at, body }) => (body.kind === 'modification.recorded' ? [{ at, body }] : []));
  const said = ({ body }: (typeof all)[number]): string[] => [
    ...(body.noStandby === true ? [paper('noStandby')] : []),
    ...(body.lost === undefined || body.lost === '' ? [] : [`${paper('lost')}: ${body.lost}`]),
    paper(body.plugsKept ? 'plugsKept' : 'plugsCut'),
  ];
  const inside: Content = {
    table: {
      widths: [mm(96)],
      body: [
        [
          {
            stack: [
              { text: paper('modified'), bold: true, fontSize: 14 },
              { text: `${paper('job', { n: job.number })}, ${setName(facts)}, ${shop.shopName}` },
              ...all.flatMap((one): Content[] => [{ text: one.body.name, bold: true }, ...said(one).map((text): Content => ({ text }))]),
            ],
          },
        ],
      ],
    },
    margin: [0, 0, 0, 18],
  };
  const record = (one: (typeof all)[number]): Content => ({
    stack: [
      { text: one.body.name, fontSize: 14, bold: true },
      { text: one.at.slice(0, 10) },
      ...(one.body.wires.length > 0
        ? [{ svg: modificationSvg(one.body.wires), width: mm(165), margin: [0, 6, 0, 6] } satisfies Content]
        : []),
      { text: `${paper('undo')}: ${clipped(one.body.undo)}` },
      ...said(one).map((text): Content => ({ text })),
    ],
    margin: [0, 0, 0, 16],
  });
  return {
    pageSize: 'A4',
    pageMargins: [mm(22), mm(20), mm(22), mm(20)],
    defaultStyle: { font: 'Roboto', fontSize: 11, lineHeight: 1.15 },
    info: { title: `${paper('modifications')}: ${paper('job', { n: job.number })}` },
    content: [
      { text: paper('modifications'), fontSize: 18, bold: true },
      { text: `${paper('job', { n: job.number })}, ${setName(facts)}`, margin: [0, 0, 0, 12] },
      ...(all.length === 0 ? [{ text: paper('noModification') }] : [inside, ...all.map(record)]),
    ],
  };
}
