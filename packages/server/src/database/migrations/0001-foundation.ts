import type { QueryInterface } from 'sequelize';

/** People, customers, sets, jobs, the ledger with its texts apart, cards, packs. */
const statements = [
  `CREATE TABLE people (
     id uuid PRIMARY KEY, name text NOT NULL, created_at timestamptz NOT NULL DEFAULT now())`,
  `CREATE TABLE customers (
     id uuid PRIMARY KEY, name text, contact text, created_at timestamptz NOT NULL DEFAULT now())`,
  `CREATE TABLE sets (
     id uuid PRIMARY KEY, maker text NOT NULL, model text NOT NULL, serial text NOT NULL, created_at timestamptz NOT NULL DEFAULT now())`,
  `CREATE TABLE packs (
     hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'), document jsonb NOT NULL, imported_at timestamptz NOT NULL DEFAULT now())`,
  `CREATE TABLE jobs (
     id uuid PRIMARY KEY,
     number integer GENERATED ALWAYS AS IDENTITY UNIQUE,
     customer_id uuid REFERENCES customers(id),
     set_id uuid NOT NULL REFERENCES sets(id),
     pack_hash text NOT NULL REFERENCES packs(hash),
     last_seq integer NOT NULL DEFAULT 0,
     opened_at timestamptz NOT NULL)`,
  `CREATE TABLE ledger_entries (
     job_id uuid NOT NULL REFERENCES jobs(id),
     seq integer NOT NULL CHECK (seq >= 1),
     id uuid NOT NULL UNIQUE,
     at timestamptz NOT NULL,
     recorded_at timestamptz NOT NULL,
     by uuid NOT NULL REFERENCES people(id),
     based_on integer NOT NULL,
     kind text NOT NULL,
     v integer NOT NULL,
     body jsonb NOT NULL,
     PRIMARY KEY (job_id, seq))`,
  `CREATE TABLE entry_texts (
     entry_id uuid NOT NULL REFERENCES ledger_entries(id), field text NOT NULL, content text, PRIMARY KEY (entry_id, field))`,
  `CREATE TABLE job_cards (
     job_id uuid PRIMARY KEY REFERENCES jobs(id), state text NOT NULL, card jsonb NOT NULL, updated_at timestamptz NOT NULL)`,
  `CREATE INDEX job_cards_state ON job_cards (state)`,
  `CREATE TABLE meta (key text PRIMARY KEY, value text NOT NULL)`,
  // The ledger grows and never changes, whoever asks: roles guard it as well, but some databases have one role only.
  `CREATE FUNCTION ledger_is_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
   BEGIN
     RAISE EXCEPTION 'the ledger is append-only: % refused', TG_OP USING ERRCODE = 'insufficient_privilege';
   END $$`,
  `CREATE TRIGGER ledger_append_only BEFORE UPDATE OR DELETE ON ledger_entries
     FOR EACH ROW EXECUTE FUNCTION ledger_is_append_only()`,
  `CREATE TRIGGER ledger_no_truncate BEFORE TRUNCATE ON ledger_entries
     FOR EACH STATEMENT EXECUTE FUNCTION ledger_is_append_only()`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
