/** The shop's settings: one row; none until somebody changes them. */
import { shopSettingsSchema, usualShopSettings, type ShopChange, type ShopState } from '@veglia/contract';
import type { Transaction } from 'sequelize';
import { againIfOvertaken } from './http/again.ts';
import { ApiError } from './http/apiError.ts';
import { requirePerson } from './people.ts';
import type { Store } from './store.ts';

const onlyRow = 1;

/** Settings with the version a change must name. */
export async function readShop(store: Store, transaction?: Transaction): Promise<ShopState> {
  return shopOf(await store.models.shop.findByPk(onlyRow, transaction ? { transaction } : {}));
}

/** From its row. */
export function shopOf(row: { readonly version: number; readonly document: object } | null): ShopState {
  if (row === null) return { version: 0, settings: usualShopSettings };
  // What was added since it was stored has its usual value.
  return { version: row.version, settings: shopSettingsSchema.parse({ ...usualShopSettings, ...row.document }) };
}

/** Throws settings-version-conflict where somebody else's change came first. */
export async function changeShop(store: Store, { by, version, settings }: ShopChange): Promise<ShopState> {
  return againIfOvertaken(() =>
    store.sequelize.transaction(async (transaction) => {
      await requirePerson(store, by, transaction);
      const changed = { version: version + 1, document: settings, changedBy: by, changedAt: store.now() };
      const row = await store.models.shop.findByPk(onlyRow, { transaction, lock: transaction.LOCK.UPDATE });
      if ((row?.version ?? 0) !== version) throw new ApiError('settings-version-conflict');
      if (row) await row.update(changed, { transaction });
      else await store.models.shop.create({ id: onlyRow, ...changed }, { transaction });
      return { version: version + 1, settings };
    }),
  );
}
