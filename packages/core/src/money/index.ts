export {
  billBars,
  billEnds,
  billSpread,
  usualBillLimits,
  type BillBar,
  type BillEnd,
  type BillLimits,
  type BillSpread,
  type LikelyBill,
} from './bill.ts';
export { likelyBill } from './likelyBill.ts';
export { invoiceLineKinds, invoiceLines, invoiceOf, type Invoice, type InvoiceLine } from './invoice.ts';
export { labourMinor, taxOf, type Taxed, type TaxOfRate, type TaxSums } from './tax.ts';
export { quoteLines, type QuoteFacts } from './quote.ts';
export {
  repairOrNot,
  simulatedBills,
  worthShare,
  type OptionWorth,
  type Worth,
  type WorthFacts,
  type WorthOffer,
  type WorthOption,
} from './worth.ts';
export { worthOfJob, type JobWorth, type WorthAsked } from './worthOfJob.ts';
