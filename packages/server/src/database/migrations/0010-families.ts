import type { QueryInterface } from 'sequelize';

/** Each version of a family that a shop added or changed, whole: who, when, why, from which pack to which. Never rewritten. */
const statements = [
  `CREATE TABLE family_versions (
     number integer GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
     family text NOT NULL,
     document jsonb NOT NULL,
     reason text NOT NULL,
     pack_from text NOT NULL REFERENCES packs(hash),
     pack_to text NOT NULL REFERENCES packs(hash),
     changed_by uuid NOT NULL REFERENCES people(id),
     changed_at timestamptz NOT NULL)`,
  'CREATE INDEX family_versions_family ON family_versions (family, number)',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
