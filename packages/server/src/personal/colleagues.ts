/** Everything held about somebody who works here, or did: handed over, or erased once they have left. */
import { words, type Account } from '@veglia/contract';
import { Op } from 'sequelize';
import { listAccounts } from '../accounts/accounts.ts';
import { listAuditOf, record, type AuditFrom } from '../accounts/audit.ts';
import { hashOf, newToken } from '../accounts/secrets.ts';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';

/** Facts of the account, its lines of the audit, what they wrote by job. Nothing that opens a door. Throws not-found. */
export async function accountData(store: Store, id: string): Promise<{ format: 'veglia-person' } & Record<string, unknown>> {
  const person = await store.models.people.findByPk(id);
  if (person === null) throw new ApiError('not-found');
  const account = (await listAccounts(store)).find((one) => one.id === id);
  const benches = await store.models.benchPeople.findAll({ where: { personId: id } });
  const entries = await store.models.entries.findAll({
    where: { by: id },
    order: [['recordedAt', 'ASC']],
    attributes: ['id', 'jobId', 'seq', 'at', 'kind'],
  });
  return {
    format: 'veglia-person',
    version: 1,
    at: store.now().toISOString(),
    account,
    benches: benches.map(({ benchId, passwordAt }) => ({ bench: benchId, passwordAt: passwordAt.toISOString() })),
    audit: await listAuditOf(store, id),
    entries: entries.map(({ id: entry, jobId, seq, at, kind }) => ({ id: entry, job: jobId, seq, at: at.toISOString(), kind })),
  };
}

/** The name becomes "Former colleague 3"; every way in is gone, and so are the addresses they came from. Throws not-found, still-works-here. */
export async function eraseAccount(store: Store, id: string, from: AuditFrom): Promise<Account[]> {
  // Of what no one knows: nothing that is typed fits it.
  const noPassword = await hashOf(newToken());
  await store.sequelize.transaction(async (transaction) => {
    const person = await store.models.people.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (person === null) throw new ApiError('not-found');
    if (person.leftAt === null) throw new ApiError('still-works-here');
    const { name: before } = person;
    const former = words.en.formerColleague;
    if (before.startsWith(`${former} `)) return;
    const taken = await store.models.people.count({ where: { name: { [Op.startsWith]: `${former} ` } }, transaction });
    await person.update({ name: `${former} ${taken + 1}` }, { transaction });
    await store.models.accounts.update(
      { passwordHash: noPassword, pinHash: null, factorSecret: null, factorPending: null, recoveryHashes: [] },
      { where: { personId: id }, transaction },
    );
    await store.models.passkeys.destroy({ where: { personId: id }, transaction });
    await store.models.audit.update({ fromAddress: null }, { where: { personId: id }, transaction });
    await store.models.audit.update({ about: null }, { where: { about: before }, transaction });
    await record(store, 'account-erased', from, id, transaction);
  });
  return listAccounts(store);
}
