/** Words of the screens, English. Sentences for the core's codes are in contract/words. */
import { accountsWords } from './accounts.ts';
import { customersWords } from './customers.ts';
import { benchWords } from './bench.ts';
import { blinkWords } from './blink.ts';
import { boardsWords } from './boards.ts';
import { chartWords } from './charts.ts';
import { counterWords } from './counter.ts';
import { familiesWords } from './families.ts';
import { flashBenchWords } from './flash.ts';
import { frameWords } from './frame.ts';
import { instrumentsWords } from './instruments.ts';
import { ledgerWords } from './ledger.ts';
import { moneyWords } from './money.ts';
import { partsWords } from './parts.ts';
import { proofWords } from './proof.ts';
import { shopWords } from './shop.ts';
import { stockWords } from './stock.ts';

export const en = {
  ...frameWords,
  ...accountsWords,
  ...customersWords,
  ...counterWords,
  ...blinkWords,
  ...benchWords,
  ...instrumentsWords,
  ...ledgerWords,
  ...shopWords,
  ...chartWords,
  ...boardsWords,
  ...familiesWords,
  ...flashBenchWords,
  ...stockWords,
  ...proofWords,
  ...partsWords,
  ...moneyWords,
} as const;
