/** Passkeys: the second factor that a phone, a key or a computer holds. Only what it takes to check them. */
import type { QueryInterface } from 'sequelize';

const statements = [
  // `rp`: the name of this server that it was made for; under another name the browser doesn't offer it.
  `CREATE TABLE passkeys (
     id text PRIMARY KEY,
     person_id uuid NOT NULL REFERENCES people(id),
     rp text NOT NULL,
     name text NOT NULL,
     public_key bytea NOT NULL,
     counter bigint NOT NULL,
     transports text[] NOT NULL,
     added_at timestamptz NOT NULL,
     used_at timestamptz)`,
  'CREATE INDEX passkeys_person ON passkeys (person_id)',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
