import type { QueryInterface } from 'sequelize';

/** An image that was erased leaves what it was, who erased it and why; its bytes are gone with the next collection. */
const statements = [
  `CREATE TABLE image_erasures (
     id uuid PRIMARY KEY,
     sha256 bytea NOT NULL CHECK (octet_length(sha256) = 32),
     size bigint NOT NULL,
     facts jsonb NOT NULL,
     reason text NOT NULL,
     erased_by uuid REFERENCES people(id),
     erased_at timestamptz NOT NULL)`,
  `CREATE INDEX ledger_flash_image ON ledger_entries ((body #>> '{did,image}'))
     WHERE kind = 'flash.step' AND body #>> '{did,image}' IS NOT NULL`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
