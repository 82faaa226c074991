/** What is told over the WebSocket: that something is there, never what it is. */
import { z } from 'zod';

/** Where browsers listen. */
export const livePath = '/api/live';
/** PostgreSQL channel by which server processes tell each other. */
export const ledgerChannel = 'veglia_ledger';

const grown = z.object({ job: z.uuid(), seq: z.number().int().min(1) });
/** Of more jobs at once no one is given a list: everything is looked at. */
export const mostNews = 200;

/** What the server tells a browser by itself. */
export const liveMessageSchema = z.union([
  grown,
  /** Of jobs that are not on the browser's screen, gathered for a moment. */
  z.object({ jobs: z.array(grown).min(1).max(mostNews) }),
  /** Something may have been missed: look for yourself. */
  z.object({ resync: z.literal(true) }),
]);
/** What the server tells a browser by itself. */
export type LiveMessage = z.infer<typeof liveMessageSchema>;

/** What a browser says: which jobs are on its screen and are to be told of at once. Until it says so, all of them are. */
export const liveRequestSchema = z.object({ watch: z.array(z.uuid().toLowerCase()).max(8) });
/** What a browser says: which jobs are on its screen. */
export type LiveRequest = z.infer<typeof liveRequestSchema>;
