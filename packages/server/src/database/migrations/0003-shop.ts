import type { QueryInterface } from 'sequelize';

/** What a shop says of itself: one row, told by version so that two who change it at once notice. */
const statements = [
  `CREATE TABLE shop_settings (
     id integer PRIMARY KEY CHECK (id = 1),
     version integer NOT NULL,
     document jsonb NOT NULL,
     changed_by uuid REFERENCES people(id),
     changed_at timestamptz NOT NULL)`,
  `CREATE INDEX customers_name ON customers (lower(name))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
