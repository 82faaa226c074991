export { LineMeter, parseHandLine, type LineSource } from './lineMeter.ts';
export {
  meterFunctions,
  meterTroubles,
  quantityOf,
  type Meter,
  type MeterFunction,
  type MeterIdentity,
  type MeterReading,
  type MeterTrouble,
} from './meter.ts';
export { formatNumber, formatQuery, identityQuery, overRangeNumber, parseIdentity, parseQuery, parseReply } from './scpi.ts';
