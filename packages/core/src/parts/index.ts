export {
  donorStates,
  fitHows,
  fitRowSchema,
  moveReasons,
  numberKey,
  stockConditions,
  stockItemSchema,
  stockKinds,
  stripsSchema,
  type PartWanted,
  type StockItem,
  type StockItemInput,
  type Strips,
} from './stock.ts';
export { fitOf, stockFor, type PartFit, type PartFitDoubt, type PartFitHow } from './match.ts';
export { notSold, type NotSold } from './sold.ts';
export { partsOf, partStates, waitOf, type JobPart, type PartState, type PartWait } from './wants.ts';
export { lossAgreed, orderRefused, orderRefusals, type OrderAsked, type OrderRefusal } from './agreement.ts';
