import type { QueryInterface } from 'sequelize';

/** What was said of an image before somebody said otherwise. */
const statements = [
  `CREATE TABLE image_facts_before (
     id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
     image_id uuid NOT NULL REFERENCES images(id) ON DELETE CASCADE,
     facts jsonb NOT NULL,
     changed_by uuid NOT NULL REFERENCES people(id),
     changed_at timestamptz NOT NULL)`,
  'CREATE INDEX image_facts_before_image ON image_facts_before (image_id, id)',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
