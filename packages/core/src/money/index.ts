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
