/** Work of programmers, so that every process knows of it, whichever has the programmer. */
import type { QueryInterface } from 'sequelize';

const statements = [
  `CREATE TABLE programmer_runs (
     id uuid PRIMARY KEY,
     programmer text NOT NULL,
     session uuid NOT NULL,
     document jsonb NOT NULL,
     ended boolean NOT NULL,
     cancelled boolean NOT NULL DEFAULT false,
     seen_at timestamptz NOT NULL)`,
  'CREATE INDEX programmer_runs_under_way ON programmer_runs (programmer) WHERE NOT ended',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
