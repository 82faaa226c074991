/** What routes and commands work with: the database, its models, the packs already compiled, and the clock. */
import type { Sequelize } from 'sequelize';
import type { Counts } from '@veglia/core';
import type { Models } from './database/models.ts';
import type { PackShelf } from './packs/shelf.ts';

/** The database and what is kept ready beside it. */
export interface Store {
  readonly sequelize: Sequelize;
  readonly models: Models;
  readonly packs: PackShelf;
  /** Snapshots of counts already read, by number; a number never changes. */
  readonly counts: Map<number, Counts>;
  readonly now: () => Date;
}
