/** What routes and commands work with: the database, its models, the packs already compiled, and the clock. */
import type { Sequelize } from 'sequelize';
import type { Models } from './database/models.ts';
import type { PackShelf } from './packs/shelf.ts';

export interface Store {
  readonly sequelize: Sequelize;
  readonly models: Models;
  readonly packs: PackShelf;
  readonly now: () => Date;
}
