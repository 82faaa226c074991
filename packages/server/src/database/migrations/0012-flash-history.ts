import type { QueryInterface } from 'sequelize';

/** What was written into sets of a board is looked up by that board: few entries of a large ledger. */
const statements = [
  `CREATE INDEX ledger_flash_target ON ledger_entries (regexp_replace(lower(body #>> '{did,board}'), '[^a-z0-9]', '', 'g'), recorded_at DESC)
     WHERE kind = 'flash.step' AND body #>> '{did,step}' = 'target'`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
