/**
 * Blink tables as a shop changes them. A table is part of the pack, so a change makes another version of the pack and that becomes the
 * one new jobs get; what the shop changed is laid over every later pack, too.
 */
import type { BlinkTables, ChangeBlinkTable } from '@veglia/contract';
import { parsePack, withBlinkTable, type Pack } from '@veglia/core';
import type { Transaction } from 'sequelize';
import { againIfOvertaken } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import { requirePerson } from '../people.ts';
import type { Store } from '../store.ts';
import { laidOver, type LaidOver } from './laidOver.ts';

const latestFirst = [['number', 'DESC']] as [string, string][];

/** All families with their blink tables and the history of each. */
export async function listBlinkTables({ models }: Pick<Store, 'models'>, transaction?: Transaction): Promise<BlinkTables> {
  const rows = await models.blinkTables.findAll({ order: latestFirst, ...(transaction ? { transaction } : {}) });
  return {
    changes: rows.map(({ number, family, document, packFrom, packTo, changedBy, changedAt }) => ({
      number,
      family,
      rows: (document as { codes: unknown[] }).codes.length,
      packFrom,
      packTo,
      by: changedBy,
      at: changedAt.toISOString(),
    })),
  };
}

/** Throws with every problem by row; `pack-version-conflict` where somebody changed the pack since it was looked at. */
export async function changeBlinkTable(store: Store, { by, basedOn, table }: ChangeBlinkTable): Promise<{ hash: string }> {
  const current = await store.packs.currentHash();
  if (current !== basedOn) throw new ApiError('pack-version-conflict');
  const next = withBlinkTable(parsePack(await store.packs.document(current)), table);
  return againIfOvertaken(() =>
    store.sequelize.transaction(async (transaction) => {
      await requirePerson(store, by, transaction);
      // One change of the pack at a time: the second finds that it moved on.
      await store.packs.moveOn(current, next, transaction);
      const hash = await store.packs.currentHash(transaction);
      if (hash === current) return { hash };
      const { family } = table;
      await store.models.blinkTables.create(
        { family, document: table, packFrom: current, packTo: hash, changedBy: by, changedAt: store.now() },
        { transaction },
      );
      return { hash };
    }),
  );
}

/** A shipped pack with the shop's own tables laid over it; one that no longer fits (a fault was renamed away) stays out and is named. */
export async function withOwnTables(store: Pick<Store, 'models'>, shipped: Pack): Promise<LaidOver> {
  return laidOver(shipped, await store.models.blinkTables.findAll({ order: latestFirst }), withBlinkTable);
}
