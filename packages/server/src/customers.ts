/** Customers who were here before: found while somebody types, so that nobody is written down twice. */
import type { KnownCustomer } from '@veglia/contract';
import { QueryTypes } from 'sequelize';
import type { Store } from './store.ts';

const mostFound = 6;
/** Fewer letters or digits than this fit half the town. */
const leastLetters = 2;
const leastDigits = 4;

/** By words of the name in any order, by the digits of a number, or by the start of a mail address. Erased ones are never found. */
export async function searchCustomers(store: Store, { name, contact }: { name: string; contact: string }): Promise<KnownCustomer[]> {
  const words = name
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word.length >= leastLetters);
  const typed = contact.replace(/\D/g, '');
  const digits = typed.length >= leastDigits ? typed : '';
  const mail = contact.includes('@') ? contact.toLowerCase() : '';
  if (words.length === 0 && digits === '' && mail === '') return [];
  const like = (text: string): string => text.replace(/[\\%_]/g, '\\$&');
  return store.sequelize.query<KnownCustomer>(
    `SELECT c.id, c.name, coalesce(c.contact, '') AS contact, (SELECT count(*)::int FROM jobs j WHERE j.customer_id = c.id) AS jobs
       FROM customers c
      WHERE c.name IS NOT NULL AND (
        (cardinality($1::text[]) > 0 AND (SELECT bool_and(lower(c.name) LIKE '%' || word || '%') FROM unnest($1::text[]) AS word))
        OR ($2 <> '' AND regexp_replace(coalesce(c.contact, ''), '[^0-9]', '', 'g') LIKE '%' || $2 || '%')
        OR ($3 <> '' AND lower(c.contact) LIKE $3 || '%'))
      ORDER BY c.created_at DESC LIMIT ${mostFound}`,
    { bind: [words.map(like), digits, like(mail)], type: QueryTypes.SELECT },
  );
}
