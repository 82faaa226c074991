import type { QueryInterface } from 'sequelize';

/** Counts of closed jobs and told experience, numbered, and the one each job was opened with. */
const statements = [
  `CREATE TABLE counts_snapshots (
     number integer GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
     counts jsonb NOT NULL,
     made_at timestamptz NOT NULL)`,
  `CREATE TABLE told_experience (
     id uuid PRIMARY KEY,
     by uuid NOT NULL REFERENCES people(id),
     layout text NOT NULL,
     family text,
     symptom text,
     fault text NOT NULL,
     n integer NOT NULL CHECK (n >= 1),
     at timestamptz NOT NULL,
     withdrawn_at timestamptz)`,
  `ALTER TABLE jobs ADD COLUMN snapshot integer REFERENCES counts_snapshots(number)`,
  // What a closed job counts, kept beside its card: a cache, made anew with it.
  `ALTER TABLE job_cards ADD COLUMN counted jsonb`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
