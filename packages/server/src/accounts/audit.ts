/** What is recorded of sign-ins and changes. Added to and never changed; addresses are left out after a while when it is read. */
import type { AuditKind, AuditLine } from '@veglia/contract';
import { Op, type Transaction } from 'sequelize';
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
