import type { QueryInterface } from 'sequelize';

/** Every version of a board's document, whole: who, when, why. Never rewritten; the highest version holds. */
const statements = [
  `CREATE TABLE board_versions (
     board_id uuid NOT NULL,
     version integer NOT NULL CHECK (version > 0),
     document jsonb NOT NULL,
     reason text NOT NULL,
     changed_by uuid NOT NULL REFERENCES people(id),
     changed_at timestamptz NOT NULL,
     PRIMARY KEY (board_id, version))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
