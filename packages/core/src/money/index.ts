export { billEnds, billSpread, usualBillLimits, type BillEnd, type BillLimits, type BillSpread } from './bill.ts';
export { likelyBill } from './likelyBill.ts';
