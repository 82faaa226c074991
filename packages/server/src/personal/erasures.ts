/** When something was erased last: what browsers kept before that is thrown away. */
import type { Transaction } from 'sequelize';
import type { Store } from '../store.ts';

const key = 'erased-at';
/** ISO time, or null while nothing ever was. */
export const lastErasure = async (store: Store): Promise<string | null> => (await store.models.meta.findByPk(key))?.value ?? null;
/** In the transaction that erases. */
export async function rememberErasure(store: Store, at: string, transaction: Transaction): Promise<void> {
  await store.models.meta.upsert({ key, value: at }, { transaction });
}
