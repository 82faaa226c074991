/**
 * Families as a shop keeps them. A family is part of the pack, so a change makes another version of the pack and that becomes the one new jobs get; what the
 * shop keeps is laid over every later pack, too.
 */
import type { ChangeFamily, FamilyChanges } from '@veglia/contract';
import { parsePack, withFamily, type Pack } from '@veglia/core';
import { againIfOvertaken } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import { requirePerson } from '../people.ts';
import type { Store } from '../store.ts';
import { laidOver, type LaidOver } from './laidOver.ts';

/** Versions of all families the shop added or changed, newest first. */
export async function listFamilyChanges({ models }: Pick<Store, 'models'>): Promise<FamilyChanges> {
  const rows = await models.familyVersions.findAll({ order: [['number', 'DESC']] });
  return {
    changes: rows.map(({ number, family, document, reason, packTo, changedBy, changedAt }) => ({
      number,
      family,
      name: (document as { name: { en: string } }).name.en,
      reason,
      packTo,
      by: changedBy,
      at: changedAt.toISOString(),
    })),
  };
}

/** Throws with every problem by place; `pack-version-conflict` where somebody changed the pack since it was looked at. */
export async function changeFamily(store: Store, { by, basedOn, reason, family }: ChangeFamily): Promise<{ hash: string }> {
  const current = await store.packs.currentHash();
  if (current !== basedOn) throw new ApiError('pack-version-conflict');
  const next = withFamily(parsePack(await store.packs.document(current)), family);
  const id = (family as { id: string }).id;
  return againIfOvertaken(() =>
    store.sequelize.transaction(async (transaction) => {
      await requirePerson(store, by, transaction);
      // One change of the pack at a time: the second finds that it moved on.
      await store.packs.moveOn(current, next, transaction);
      const hash = await store.packs.currentHash(transaction);
      if (hash === current) return { hash };
      const document = next.families.find((one) => one.id === id) ?? {};
      await store.models.familyVersions.create(
        { family: id, document, reason, packFrom: current, packTo: hash, changedBy: by, changedAt: store.now() },
        { transaction },
      );
      return { hash };
    }),
  );
}

/** A shipped pack with the shop's own families laid over it; one that no longer fits (a layout was renamed away) stays out and is named. */
export async function withOwnFamilies(store: Pick<Store, 'models'>, shipped: Pack): Promise<LaidOver> {
  return laidOver(shipped, await store.models.familyVersions.findAll({ order: [['number', 'DESC']] }), withFamily);
}
