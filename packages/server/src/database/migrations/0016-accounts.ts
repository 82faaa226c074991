import type { QueryInterface } from 'sequelize';

/**
 * What people may do, how they show who they are, their sessions, the benches where a PIN is enough, and the audit, which is added to and never
 * changed. Tokens, codes and session ids stand here as their SHA-256 only; passwords, PINs and recovery codes as Argon2id.
 */
const statements = [
  // Whoever was here before accounts were could do everything a technician can.
  `ALTER TABLE people
     ADD COLUMN role text NOT NULL DEFAULT 'technician' CHECK (role IN ('technician', 'counter', 'owner')),
     ADD COLUMN left_at timestamptz`,
  `CREATE TABLE accounts (
     person_id uuid PRIMARY KEY REFERENCES people(id),
     password_hash text NOT NULL,
     pin_hash text,
     factor_secret text,
     factor_pending text,
     factor_step bigint NOT NULL DEFAULT 0,
     recovery_hashes text[] NOT NULL DEFAULT '{}',
     sessions_from timestamptz NOT NULL,
     last_sign_in timestamptz)`,
  `CREATE TABLE invitations (
     code_hash text PRIMARY KEY,
     person_id uuid REFERENCES people(id),
     until timestamptz NOT NULL,
     used_at timestamptz)`,
  'CREATE INDEX invitations_person ON invitations (person_id)',
  'CREATE TABLE sessions (sid varchar PRIMARY KEY, sess json NOT NULL, expire timestamp(6) NOT NULL)',
  'CREATE INDEX sessions_expire ON sessions (expire)',
  `CREATE TABLE benches (
     id uuid PRIMARY KEY,
     name text NOT NULL,
     token_hash text NOT NULL UNIQUE,
     trusted_by uuid NOT NULL REFERENCES people(id),
     trusted_at timestamptz NOT NULL,
     last_used timestamptz,
     ended_at timestamptz)`,
  `CREATE TABLE bench_people (
     bench_id uuid NOT NULL REFERENCES benches(id),
     person_id uuid NOT NULL REFERENCES people(id),
     password_at timestamptz NOT NULL,
     wrong_pins integer NOT NULL DEFAULT 0,
     PRIMARY KEY (bench_id, person_id))`,
  'CREATE TABLE attempts (key varchar(255) PRIMARY KEY, points integer NOT NULL DEFAULT 0, expire bigint)',
  `CREATE TABLE audit (
     id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
     at timestamptz NOT NULL,
     what text NOT NULL,
     person_id uuid REFERENCES people(id),
     about text,
     from_address text)`,
  `CREATE TRIGGER audit_append_only BEFORE UPDATE OR DELETE ON audit
     FOR EACH ROW EXECUTE FUNCTION ledger_is_append_only()`,
  `CREATE TRIGGER audit_no_truncate BEFORE TRUNCATE ON audit
     FOR EACH STATEMENT EXECUTE FUNCTION ledger_is_append_only()`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
