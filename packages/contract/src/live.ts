/** What is told over the WebSocket: that something is there, never what it is. */
import { z } from 'zod';

export const livePath = '/api/live';
/** PostgreSQL channel by which server processes tell each other. */
export const ledgerChannel = 'veglia_ledger';

export const liveMessageSchema = z.union([
  z.object({ job: z.uuid(), seq: z.number().int().min(1) }),
  /** Something may have been missed: look for yourself. */
  z.object({ resync: z.literal(true) }),
]);
export type LiveMessage = z.infer<typeof liveMessageSchema>;
