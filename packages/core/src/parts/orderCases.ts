/**
 * Parts of a job as a shop handles them: what may be ordered, and where a part is. Written before the rule (common practice, no source).
 * Minor units, euros.
 */
import type { Body } from '../ledger/index.ts';

const euros = (amount: number) => ({ amountMinor: Math.round(amount * 100), currency: 'EUR' });
const limit = (amount: number): Body => ({ kind: 'limit.agreed', v: 2, limit: euros(amount) });
const quote = (total: number, upTo?: number, validUntil?: string): Body => ({
  kind: 'quote.sent',
  v: 2,
  total: euros(total),
  ...(upTo === undefined ? {} : { upTo: euros(upTo) }),
  ...(validUntil === undefined ? {} : { validUntil }),
});
type Answer = Extract<Body, { kind: 'quote.answered' }>;
const said = (answer: Answer['answer'], option?: Answer['option']): Body => ({
  kind: 'quote.answered',
  v: 2,
  answer,
  ...(option === undefined ? {} : { option }),
});
const uuid = (n: number): string => `0193a000-0000-4000-8000-0000000000${String(n).padStart(2, '0')}`;
const wanted = (n: number, price: number, number = `PW-${n}`): Body => ({
  kind: 'part.wanted',
  v: 1,
  want: uuid(n),
  assembly: 'power',
  number,
  source: 'new',
  price: euros(price),
});
const ordered = (n: number, price: number, expectedOn?: string): Body => ({
  kind: 'part.ordered',
  v: 1,
  want: uuid(n),
  supplier: 'Brelm Parts',
  price: euros(price),
  ...(expectedOn === undefined ? {} : { expectedOn }),
});
const arrived = (n: number, result: Extract<Body, { kind: 'part.arrived' }>['result'] = 'right'): Body => ({
  kind: 'part.arrived',
  v: 1,
  want: uuid(n),
  result,
});
const sentBack = (n: number): Body => ({ kind: 'part.returned', v: 1, want: uuid(n), reason: 'wrong-part' });
const fitted = (n: number, number = `PW-${n}`): Body => ({
  kind: 'part.fitted',
  v: 1,
  assembly: 'power',
  number,
  source: 'new',
  price: euros(48),
  want: uuid(n),
});

/** May a part be ordered? On a set with 20.00 of labour so far; fitting takes another 24.00. Answered on 10 March 2026. */
export interface OrderCase {
  readonly name: string;
  readonly bodies: readonly Body[];
  /** The shop's own set: nobody has to be asked. */
  readonly own?: true;
  readonly price: number;
  /** Null: it may. */
  readonly refused: 'nothing-agreed' | 'not-answered' | 'declined' | 'over' | 'quote-expired' | null;
  /** By how much the whole would be over what was agreed. */
  readonly overMinor?: number;
}
/** May a part be ordered? */
export const orderCases: readonly OrderCase[] = [
  { name: 'nothing agreed yet: ask first', bodies: [], price: 4800, refused: 'nothing-agreed' },
  { name: 'a trifle needs no call', bodies: [], price: 240, refused: null },
  { name: 'a trifle, but the customer said no', bodies: [quote(90), said('no')], price: 240, refused: 'declined' },
  { name: 'own set: nobody to ask', bodies: [], own: true, price: 4800, refused: null },
  { name: 'within what may be spent, fitting counted', bodies: [limit(92)], price: 4800, refused: null },
  { name: 'the part alone would do, with the fitting it is too much', bodies: [limit(90)], price: 4800, refused: 'over', overMinor: 200 },
  { name: 'a quote that waits for its answer', bodies: [quote(90, 150)], price: 4800, refused: 'not-answered' },
  { name: 'will call back is no yes', bodies: [quote(90, 150), said('later')], price: 4800, refused: 'not-answered' },
  { name: 'accepted: up to its upper end', bodies: [quote(90, 150), said('yes', 'repair')], price: 4800, refused: null },
  {
    name: 'accepted, and the part turns out dearer',
    bodies: [quote(90), said('yes', 'repair')],
    price: 9800,
    refused: 'over',
    overMinor: 5200,
  },
  { name: 'declined, whatever was agreed before', bodies: [limit(200), quote(190), said('no')], price: 4800, refused: 'declined' },
  { name: 'a limit agreed after the no counts', bodies: [quote(190), said('no'), limit(120)], price: 4800, refused: null },
  {
    name: 'a quote sent after the no waits for its answer',
    bodies: [quote(190), said('no'), quote(100)],
    price: 4800,
    refused: 'not-answered',
  },
  { name: 'accepted to have it back unrepaired', bodies: [quote(90), said('yes', 'hand-back')], price: 4800, refused: 'declined' },
  { name: 'accepted to know what it is, and no more', bodies: [quote(90), said('yes', 'diagnose-only')], price: 4800, refused: 'declined' },
  {
    name: 'accepted after its price had lapsed',
    bodies: [quote(90, 150, '2026-03-09'), said('yes', 'repair')],
    price: 4800,
    refused: 'quote-expired',
  },
  { name: 'accepted on its last day', bodies: [quote(90, 150, '2026-03-10'), said('yes', 'repair')], price: 4800, refused: null },
  {
    name: 'what is on order already counts',
    bodies: [limit(120), wanted(1, 48), ordered(1, 48)],
    price: 4800,
    refused: 'over',
    overMinor: 2000,
  },
  {
    name: 'and so does what was set aside from the own shelf',
    bodies: [limit(120), { ...(wanted(1, 48) as Extract<Body, { kind: 'part.wanted' }>), source: 'own-stock', item: uuid(50) }],
    price: 4800,
    refused: 'over',
    overMinor: 2000,
  },
  {
    name: 'what was sent back does not',
    bodies: [limit(120), wanted(1, 48), ordered(1, 48), arrived(1, 'wrong'), sentBack(1)],
    price: 4800,
    refused: null,
  },
  {
    name: 'what came wrong and lies here still does',
    bodies: [limit(120), wanted(1, 48), ordered(1, 48), arrived(1, 'wrong')],
    price: 4800,
    refused: 'over',
    overMinor: 2000,
  },
];

/** Where the parts of a job are, and whether it waits for them. */
export interface PartCase {
  readonly name: string;
  readonly bodies: readonly Body[];
  readonly states: readonly ('to-order' | 'on-order' | 'here' | 'to-send-back' | 'sent-back' | 'fitted' | 'dropped')[];
  readonly waits: boolean;
  /** Day of the last one that is on its way. */
  readonly expectedOn?: string;
}
/** Where the parts of a job are. */
export const partCases: readonly PartCase[] = [
  { name: 'none', bodies: [], states: [], waits: false },
  { name: 'wanted: somebody has to order it', bodies: [wanted(1, 48)], states: ['to-order'], waits: true },
  {
    name: 'ordered, with its day',
    bodies: [wanted(1, 48), ordered(1, 45, '2026-03-13')],
    states: ['on-order'],
    waits: true,
    expectedOn: '2026-03-13',
  },
  { name: 'here: hands may go on', bodies: [wanted(1, 48), ordered(1, 45), arrived(1)], states: ['here'], waits: false },
  {
    name: 'two of which one is here: it still waits, for the later',
    bodies: [wanted(1, 48), wanted(2, 12), ordered(1, 45, '2026-03-13'), ordered(2, 12, '2026-03-17'), arrived(1)],
    states: ['here', 'on-order'],
    waits: true,
    expectedOn: '2026-03-17',
  },
  {
    name: 'the wrong one came: another has to be ordered',
    bodies: [wanted(1, 48), ordered(1, 45), arrived(1, 'wrong')],
    states: ['to-send-back'],
    waits: true,
  },
  {
    name: 'dead on arrival is no part either',
    bodies: [wanted(1, 48), ordered(1, 45), arrived(1, 'dead')],
    states: ['to-send-back'],
    waits: true,
  },
  {
    name: 'sent back: nothing waits for it any more',
    bodies: [wanted(1, 48), ordered(1, 45), arrived(1, 'wrong'), sentBack(1)],
    states: ['sent-back'],
    waits: false,
  },
  {
    name: 'the wrong one lies here while its successor is on its way',
    bodies: [wanted(1, 48), ordered(1, 45), arrived(1, 'wrong'), wanted(2, 50), ordered(2, 50, '2026-03-20')],
    states: ['to-send-back', 'on-order'],
    waits: true,
    expectedOn: '2026-03-20',
  },
  {
    name: 'and here: what lies there holds nothing up',
    bodies: [wanted(1, 48), ordered(1, 45), arrived(1, 'wrong'), wanted(2, 50), ordered(2, 50), arrived(2)],
    states: ['to-send-back', 'here'],
    waits: false,
  },
  { name: 'fitted', bodies: [wanted(1, 48), ordered(1, 45), arrived(1), fitted(1)], states: ['fitted'], waits: false },
  {
    name: 'fitted and typed by its number only, in another spelling',
    bodies: [
      wanted(1, 48, 'PW-48/A'),
      ordered(1, 45),
      arrived(1),
      { ...(fitted(1, 'pw 48 a') as Extract<Body, { kind: 'part.fitted' }>), want: undefined },
    ],
    states: ['fitted'],
    waits: false,
  },
  {
    name: 'another number is another part',
    bodies: [wanted(1, 48, 'PW-48-A'), { ...(fitted(1, 'PW-48-B') as Extract<Body, { kind: 'part.fitted' }>), want: undefined }],
    states: ['to-order'],
    waits: true,
  },
  {
    name: 'not wanted after all',
    bodies: [wanted(1, 48), { kind: 'part.dropped', v: 1, want: uuid(1) }],
    states: ['dropped'],
    waits: false,
  },
  {
    name: 'from the own shelf it is here at once',
    bodies: [{ ...(wanted(1, 48) as Extract<Body, { kind: 'part.wanted' }>), source: 'own-stock', item: uuid(50) }],
    states: ['here'],
    waits: false,
  },
];
