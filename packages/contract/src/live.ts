/** What is told over the WebSocket: that something is there, never what it is. */
import { z } from 'zod';

/** Where browsers listen. */
export const livePath = '/api/live';
/** PostgreSQL channel by which server processes tell each other. */
export const ledgerChannel = 'veglia_ledger';

/** What the server tells a browser by itself. */
export const liveMessageSchema = z.union([
  z.object({ job: z.uuid(), seq: z.number().int().min(1) }),
  /** Something may have been missed: look for yourself. */
  z.object({ resync: z.literal(true) }),
]);
/** What the server tells a browser by itself. */
export type LiveMessage = z.infer<typeof liveMessageSchema>;
