/** What is held about a person, handed over or erased. */
import { z } from 'zod';

/** What is erased of a customer beside name, contact, serial numbers and every text of their jobs. */
export const eraseCustomerSchema = z.strictObject({
  /** Photos of their jobs, too: a photo may show a label, a home, a face. */
  photos: z.boolean(),
});
/** What is erased of a customer. */
export type EraseCustomer = z.infer<typeof eraseCustomerSchema>;

/** What was erased, and what was found afterwards when the whole database was searched for the words that are gone. */
export const erasedSchema = z.object({
  at: z.string(),
  jobs: z.number().int(),
  texts: z.number().int(),
  serials: z.number().int(),
  photos: z.number().int(),
  /** A page of a board shows them: they stay. */
  photosKept: z.number().int(),
  images: z.number().int(),
  /** Jobs of others whose texts still hold the name, the contact or a serial number: somebody has to read them. */
  mentions: z.array(z.object({ jobId: z.uuid(), number: z.number().int() })),
  /** Rows of anything else that do: stock, boards, images, settings. */
  elsewhere: z.number().int(),
});
/** What was erased. */
export type Erased = z.infer<typeof erasedSchema>;
