import type { QueryInterface } from 'sequelize';

/** Each change of a family's blink table, whole: who, when, from which pack to which. Never rewritten. */
const statements = [
  `CREATE TABLE blink_tables (
     number integer GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
     family text NOT NULL,
     document jsonb NOT NULL,
     pack_from text NOT NULL REFERENCES packs(hash),
     pack_to text NOT NULL REFERENCES packs(hash),
     changed_by uuid NOT NULL REFERENCES people(id),
     changed_at timestamptz NOT NULL)`,
  'CREATE INDEX blink_tables_family ON blink_tables (family, number)',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
