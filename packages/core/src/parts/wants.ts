/** The parts of a job, from "this one is needed" to the fitting: where each is, and whether the job waits for it. */
import type { BodyOf, Entry, Money } from '../ledger/index.ts';
import { numberKey } from './stock.ts';

/** Where a part is. */
export const partStates = ['to-order', 'on-order', 'here', 'to-send-back', 'sent-back', 'fitted', 'dropped'] as const;
/** Where a part is. */
export type PartState = (typeof partStates)[number];

/** A part of a job. */
export interface JobPart {
  readonly want: string;
  readonly assembly: string;
  readonly number: string;
  readonly source: BodyOf<'part.wanted'>['source'];
  readonly state: PartState;
  /** As ordered, or as it was asked for. */
  readonly price: Money;
  readonly supplier?: string;
  /** Of an order: the day it was made, and the day it is expected. */
  readonly orderedOn?: string;
  readonly expectedOn?: string;
  readonly arrival?: BodyOf<'part.arrived'>['result'];
  readonly item?: string;
  readonly unproven: boolean;
  readonly warrantyDays?: number;
  readonly returnDays?: number;
  readonly priceSeenOn?: string;
  readonly days?: number;
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

/** In the order in which they were wanted. `live`: entries that still count. */
export function partsOf(live: readonly Entry[]): JobPart[] {
  const parts = new Map<string, Mutable<JobPart>>();
  for (const { at, body } of live) {
    if (body.kind === 'part.wanted') {
      const { want, assembly, number, source, price, supplier, item, warrantyDays, returnDays, priceSeenOn, days } = body;
      parts.set(want, {
        want,
        assembly,
        number,
        source,
        price,
        unproven: body.unproven === true,
        // What lies on the own shelf needs no order.
        state: item === undefined ? 'to-order' : 'here',
        ...(supplier === undefined ? {} : { supplier }),
        ...(item === undefined ? {} : { item }),
        ...(warrantyDays === undefined ? {} : { warrantyDays }),
        ...(returnDays === undefined ? {} : { returnDays }),
        ...(priceSeenOn === undefined ? {} : { priceSeenOn }),
        ...(days === undefined ? {} : { days }),
      });
    } else if (body.kind === 'part.fitted') {
      const part = body.want === undefined ? byNumber([...parts.values()], body) : parts.get(body.want);
      if (part) part.state = 'fitted';
    } else if (
      body.kind === 'part.ordered' ||
      body.kind === 'part.arrived' ||
      body.kind === 'part.returned' ||
      body.kind === 'part.dropped'
    ) {
      const part = parts.get(body.want);
      if (!part || part.state === 'fitted') continue;
      if (body.kind === 'part.ordered') {
        Object.assign(part, { state: 'on-order', price: body.price, supplier: body.supplier, orderedOn: at.slice(0, 10) });
        if (body.expectedOn !== undefined) part.expectedOn = body.expectedOn;
      } else if (body.kind === 'part.arrived') {
        part.arrival = body.result;
        part.state = body.result === 'right' ? 'here' : 'to-send-back';
      } else part.state = body.kind === 'part.returned' ? 'sent-back' : 'dropped';
    }
  }
  return [...parts.values()];
}

/** Typed without a word of where it came from: the oldest one of that number that isn't fitted yet. */
function byNumber(parts: readonly Mutable<JobPart>[], { assembly, number }: BodyOf<'part.fitted'>): Mutable<JobPart> | undefined {
  return parts.find(
    (one) =>
      one.assembly === assembly &&
      numberKey(one.number) === numberKey(number) &&
      (one.state === 'here' || one.state === 'on-order' || one.state === 'to-order'),
  );
}

/** Whether the job waits for a part, and the day on which the last one that is on its way is expected. */
export interface PartWait {
  readonly waits: boolean;
  readonly expectedOn?: string;
}

/** What lies here to be sent back holds nothing up once another of its assembly is wanted. */
export function waitOf(parts: readonly JobPart[]): PartWait {
  const waiting = parts.filter(
    ({ state, assembly }, index) =>
      state === 'to-order' ||
      state === 'on-order' ||
      (state === 'to-send-back' && !parts.slice(index + 1).some((later) => later.assembly === assembly && later.state !== 'dropped')),
  );
  const days = waiting.flatMap(({ state, expectedOn }) => (state === 'on-order' && expectedOn !== undefined ? [expectedOn] : [])).sort();
  const last = days.at(-1);
  return { waits: waiting.length > 0, ...(last === undefined ? {} : { expectedOn: last }) };
}
