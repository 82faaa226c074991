/** `npm run cards:rebuild`: makes job_cards anew from the ledgers. */
import { readConfig } from './config.ts';
import { rebuildCards } from './jobs/jobs.ts';
import { openStore } from './open.ts';

const store = await openStore(readConfig(process.env), () => new Date());
console.log(`${await rebuildCards(store)} cards rebuilt.`);
await store.sequelize.close();
