/** What is recorded of sign-ins and changes. Added to and never changed, but for addresses and names, which are emptied after a while. */
import type { AuditKind, AuditLine } from '@veglia/contract';
import { Op, QueryTypes, type Transaction } from 'sequelize';
import type { Store } from '../store.ts';

/** Who did it, and from where. */
export interface AuditFrom {
  readonly person?: string | undefined;
  readonly address?: string | undefined;
}
const linesAtOnce = 200;
const longest = 200;

/** `about`: a name or an id, never anything secret. */
export async function record(store: Store, what: AuditKind, from: AuditFrom, about?: string, transaction?: Transaction): Promise<void> {
  await store.models.audit.create(
    { at: store.now(), what, personId: from.person ?? null, about: about?.slice(0, longest) ?? null, fromAddress: from.address ?? null },
    transaction ? { transaction } : {},
  );
}

/** Addresses, and names that belong to no account, are of use for a break-in that is found late, and then no longer (value of ours). */
export const auditDays = 90;
/** Empties addresses, and whatever is no id, in lines that are older; returns how many. */
export async function forgetOldAudit(store: Store): Promise<number> {
  const oldest = new Date(store.now().getTime() - auditDays * 86_400_000);
  const rows = await store.sequelize.query<{ id: string }>(
    `UPDATE audit SET from_address = NULL, about = CASE WHEN about ~ '^[0-9a-f]{8}-[0-9a-f-]{27}$' THEN about END
      WHERE at < $1 AND from_address IS NOT NULL RETURNING id`,
    { bind: [oldest], type: QueryTypes.SELECT },
  );
  return rows.length;
}

/** Oldest first: what somebody did, and what was done about them. */
export async function listAuditOf(store: Store, personId: string): Promise<object[]> {
  const lines = await store.models.audit.findAll({ where: { [Op.or]: [{ personId }, { about: personId }] }, order: [['id', 'ASC']] });
  return lines.map(({ at, what, about, fromAddress }) => ({ at: at.toISOString(), what, about, from: fromAddress }));
}

/** Newest first; those before an id where one is given. */
export async function listAudit(store: Store, before?: number): Promise<AuditLine[]> {
  const [lines, people] = await Promise.all([
    store.models.audit.findAll({
      where: before === undefined ? {} : { id: { [Op.lt]: before } },
      order: [['id', 'DESC']],
      limit: linesAtOnce,
    }),
    store.models.people.findAll(),
  ]);
  const names = new Map(people.map(({ id, name }) => [id, name]));
  return lines.map(({ id, at, what, personId, about, fromAddress }) => ({
    id: Number(id),
    at: at.toISOString(),
    what,
    who: personId === null ? null : (names.get(personId) ?? personId),
    about: about === null ? null : (names.get(about) ?? about),
    from: fromAddress,
  }));
}
