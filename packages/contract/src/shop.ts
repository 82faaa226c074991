/** What a shop says of itself: rates, tools, people's words on papers. One document, changed as a whole. */
import { idSchema, paperLanguages, settingsSchema, usualLapseMinutes, type Settings, type TaxRule } from '@veglia/core';
import { z } from 'zod';

const shortText = z.string().trim().max(120);
const longText = z.string().trim().max(4000);

/** A shop’s settings; amounts in minor units. */
export const shopSettingsSchema = z.strictObject({
  shopName: shortText,
  shopContact: z.string().trim().max(400),
  currency: settingsSchema.shape.currency,
  rateMinorPerHour: settingsSchema.shape.rateMinorPerHour,
  waitShare: settingsSchema.shape.waitShare,
  wrongPartMinor: settingsSchema.shape.wrongPartMinor,
  wrongPartShare: settingsSchema.shape.wrongPartShare,
  hazardMinor: settingsSchema.shape.hazardMinor,
  newSetMinor: settingsSchema.shape.newSetMinor,
  /** Up to so much a part is ordered without a call where nothing was agreed. */
  orderFreeMinor: settingsSchema.shape.orderFreeMinor,
  /** What looking at a set costs, repaired or not. */
  checkFeeMinor: z.number().int().min(0).max(10_000_000),
  /** Hundredths of a percent; whether prices hold the tax, or it comes on top. */
  taxBasisPoints: z.number().int().min(0, 'tax is 0 to 50 %').max(5000, 'tax is 0 to 50 %'),
  pricesHoldTax: z.boolean(),
  /** Of customers who said nothing else. */
  customerLanguage: z.enum(paperLanguages),
  /** What the shop gives on a repair, and how long a quote holds, days. */
  warrantyDays: z.number().int().min(0, 'days are 0 to 3650').max(3650, 'days are 0 to 3650'),
  quoteDays: z.number().int().min(1, 'days are 1 to 365').max(365, 'days are 1 to 365'),
  /** A set that was not collected is asked after when it has stood so long, days. */
  uncollectedDays: z.number().int().min(1, 'days are 1 to 365').max(365, 'days are 1 to 365'),
  mainsVolts: z.number().min(90, 'mains are 90 to 250 V').max(250, 'mains are 90 to 250 V'),
  mainsHertz: z.union([z.literal(50), z.literal(60)]),
  temperature: z.enum(['C', 'F']),
  /** Tools at hand; null: all of the pack. */
  tools: z.array(idSchema).max(60).nullable(),
  schools: z.record(idSchema, idSchema),
  /** How long "rails down" and "charge read" are relied on. */
  lapseMinutes: z.number().int().min(1, 'minutes are 1 to 480').max(480, 'minutes are 1 to 480'),
  /** Days after a job was closed for which dumps that may hold a customer’s data are kept. */
  userDataDays: z.number().int().min(1, 'days are 1 to 3650').max(3650, 'days are 1 to 3650'),
  benches: z.array(shortText.min(1)).max(40),
  shelves: z.array(shortText.min(1)).max(200),
  /** Known-good gear, when it was last proven to be, and which tool of the pack it is; null: any that reads or is fitted. */
  gear: z
    .array(z.strictObject({ name: shortText.min(1), provenOn: z.iso.date().nullable(), tool: idSchema.nullable().default(null) }))
    .max(200),
  /** Cautions that apply here beside the pack's, and words for the receipt. */
  localCautions: longText,
  receiptText: longText,
});
/** A shop’s settings. */
export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** Until a shop says otherwise: values of ours. */
export const usualShopSettings: ShopSettings = {
  shopName: '',
  shopContact: '',
  currency: 'EUR',
  rateMinorPerHour: 4800,
  waitShare: 0.2,
  wrongPartMinor: 6000,
  wrongPartShare: 0.15,
  hazardMinor: 300,
  newSetMinor: 42_000,
  orderFreeMinor: 1000,
  checkFeeMinor: 2500,
  taxBasisPoints: 0,
  pricesHoldTax: true,
  customerLanguage: 'en',
  warrantyDays: 180,
  quoteDays: 14,
  uncollectedDays: 30,
  mainsVolts: 230,
  mainsHertz: 50,
  temperature: 'C',
  tools: null,
  schools: {},
  lapseMinutes: usualLapseMinutes,
  userDataDays: 180,
  benches: ['Bench 1'],
  shelves: [],
  gear: [],
  localCautions: '',
  receiptText: '',
};

/** Settings with the version that a change must be based on. */
export const shopStateSchema = z.object({ version: z.number().int().min(0), settings: shopSettingsSchema });
/** Settings with their version. */
export type ShopState = z.infer<typeof shopStateSchema>;
/** `version` is the one that was read: somebody else's change in between is told, not overwritten. */
export const shopChangeSchema = z.strictObject({
  by: z.uuid(),
  version: z.number().int().min(0).max(2_000_000_000),
  settings: shopSettingsSchema,
});
/** A change of the settings. */
export type ShopChange = z.infer<typeof shopChangeSchema>;

/** Its tax as a quote or a closing keeps it. */
export const taxRuleOf = ({ taxBasisPoints, pricesHoldTax }: ShopSettings): TaxRule => ({
  basisPoints: taxBasisPoints,
  held: pricesHoldTax,
});

/** The part of it that a case is folded with. */
export function jobSettings(shop: ShopSettings): Settings {
  const {
    currency,
    rateMinorPerHour,
    waitShare,
    wrongPartMinor,
    wrongPartShare,
    hazardMinor,
    newSetMinor,
    orderFreeMinor,
    tools,
    schools,
  } = shop;
  return {
    currency,
    rateMinorPerHour,
    waitShare,
    wrongPartMinor,
    wrongPartShare,
    hazardMinor,
    newSetMinor,
    orderFreeMinor,
    ...(tools === null ? {} : { tools }),
    ...(Object.keys(schools).length === 0 ? {} : { schools }),
  };
}

/** Gear is taken on trust for this long after it was last proven, days; a value of ours. */
const gearTrustDays = 180;

/**
 * Gear that a step with these tools trusts and that isn't to be trusted unseen on that day (YYYY-MM-DD): never proven, or too long ago. Days
 * since then, or null for never.
 */
export function gearToProve(
  gear: ShopSettings['gear'],
  tools: readonly string[],
  today: string,
): { readonly name: string; readonly days: number | null }[] {
  return gear.flatMap(({ name, provenOn, tool }) => {
    if (tool !== null && !tools.includes(tool)) return [];
    const days = provenOn === null ? null : Math.floor((Date.parse(today) - Date.parse(provenOn)) / 86_400_000);
    return days === null || days > gearTrustDays ? [{ name, days }] : [];
  });
}
