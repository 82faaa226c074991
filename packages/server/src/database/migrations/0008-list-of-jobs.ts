import type { QueryInterface } from 'sequelize';

/**
 * What the list of jobs is filtered, sorted and searched by stands in columns of its own, filled from the cards there are. `search` holds
 * no personal data: a customer's name and an entry's text are searched where they stand, and are gone once they are erased there.
 */
const statements = [
  // Part of every PostgreSQL since version 13 as a trusted extension: the database's owner may install it.
  `CREATE EXTENSION IF NOT EXISTS pg_trgm`,
  // "B 2" before "B 10".
  `CREATE COLLATION IF NOT EXISTS veglia_natural (provider = icu, locale = 'en-u-kn-true')`,
  `ALTER TABLE job_cards
     ADD COLUMN number integer,
     ADD COLUMN opened_at timestamptz,
     ADD COLUMN shelf text COLLATE veglia_natural NOT NULL DEFAULT '',
     ADD COLUMN family text,
     ADD COLUMN layout text,
     ADD COLUMN code text,
     ADD COLUMN symptoms text[] NOT NULL DEFAULT '{}',
     ADD COLUMN waiting boolean NOT NULL DEFAULT false,
     ADD COLUMN search text NOT NULL DEFAULT ''`,
  `UPDATE job_cards c SET
     number = j.number, opened_at = j.opened_at, shelf = coalesce(card->>'shelf', ''), family = card->>'family', layout = card->>'layout',
     code = card->>'code', symptoms = ARRAY(SELECT jsonb_array_elements_text(coalesce(card->'symptoms', '[]'))),
     waiting = jsonb_array_length(coalesce(card->'waits', '[]')) > 0,
     search = lower(concat_ws(' ', j.number, card->>'title', card->>'serial', card->>'family', card->>'shelf'))
     FROM jobs j WHERE j.id = c.job_id`,
  `ALTER TABLE job_cards ALTER COLUMN number SET NOT NULL, ALTER COLUMN opened_at SET NOT NULL`,
  `DROP INDEX job_cards_state`,
  `CREATE INDEX job_cards_open ON job_cards ((shelf = ''), shelf, opened_at, number) WHERE state <> 'closed'`,
  `CREATE INDEX job_cards_waiting ON job_cards (number) WHERE waiting AND state <> 'closed'`,
  `CREATE INDEX job_cards_newest ON job_cards (opened_at DESC, number DESC)`,
  `CREATE INDEX job_cards_closed ON job_cards (opened_at DESC, number DESC) WHERE state = 'closed'`,
  `CREATE UNIQUE INDEX job_cards_number ON job_cards (number)`,
  `CREATE INDEX job_cards_family ON job_cards (family, opened_at DESC) WHERE state = 'closed'`,
  `CREATE INDEX job_cards_layout ON job_cards (layout, opened_at DESC) WHERE state = 'closed'`,
  `CREATE INDEX job_cards_search ON job_cards USING gin (search gin_trgm_ops)`,
  `CREATE INDEX customers_search ON customers USING gin (lower(name) gin_trgm_ops)`,
  `CREATE INDEX jobs_customer ON jobs (customer_id)`,
  `CREATE INDEX entry_texts_search ON entry_texts USING gin (to_tsvector('simple', coalesce(content, '')))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
