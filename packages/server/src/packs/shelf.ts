/** Packs as stored, compiled once a process. Every version that was ever imported stays whole. */
import { compilePack, hashPack, parsePack, type CompiledPack, type Pack } from '@veglia/core';
import { LRUCache } from 'lru-cache';
import type { Transaction } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import type { Models } from '../database/models.ts';

const currentKey = 'current-pack';
/** Compiled packs kept, some 10 MB each (value of ours). */
export const packsInMemory = 8;

/** Packs by hash: stored whole for ever, compiled when they are first needed, the last few kept in memory. */
export class PackShelf {
  readonly #models: Pick<Models, 'packs' | 'meta'>;
  /** A shop edits its tables for years: only what jobs are being looked at with stays in memory. */
  readonly #compiled = new LRUCache<string, CompiledPack>({ max: packsInMemory });

  constructor(models: Pick<Models, 'packs' | 'meta'>) {
    this.#models = models;
  }

  /** Stores a checked pack and makes it the one new jobs get. */
  async import(pack: Pack): Promise<string> {
    const hash = hashPack(pack);
    if ((await this.#models.packs.findByPk(hash)) === null) await this.#models.packs.create({ hash, document: pack });
    const known = await this.#models.meta.findByPk(currentKey);
    if (known === null) await this.#models.meta.create({ key: currentKey, value: hash });
    else if (known.value !== hash) await this.#models.meta.update({ value: hash }, { where: { key: currentKey } });
    return hash;
  }

  /** Makes `next` the current one if `from` still is; throws `pack-version-conflict` else. */
  async moveOn(from: string, next: Pack, transaction: Transaction): Promise<void> {
    const hash = hashPack(next);
    if ((await this.#models.packs.findByPk(hash, { transaction })) === null) {
      await this.#models.packs.create({ hash, document: next }, { transaction });
    }
    const [changed] = await this.#models.meta.update({ value: hash }, { where: { key: currentKey, value: from }, transaction });
    if (changed !== 1) throw new ApiError('pack-version-conflict');
  }

  async currentHash(transaction?: Transaction): Promise<string> {
    const row = await this.#models.meta.findByPk(currentKey, transaction ? { transaction } : {});
    if (row === null) throw new ApiError('unknown-pack');
    return row.value;
  }

  async document(hash: string): Promise<object> {
    const row = await this.#models.packs.findByPk(hash);
    if (row === null) throw new ApiError('unknown-pack');
    return row.document;
  }

  get inMemory(): number {
    return this.#compiled.size;
  }

  async compiled(hash: string): Promise<CompiledPack> {
    const known = this.#compiled.get(hash);
    if (known) return known;
    const compiled = compilePack(parsePack(await this.document(hash)), hash);
    this.#compiled.set(hash, compiled);
    return compiled;
  }
}
