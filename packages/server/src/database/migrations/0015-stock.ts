import type { QueryInterface } from 'sequelize';

/**
 * Items of the stock, their documents before each change, and the moves their counts follow from: no count is ever written. A move that
 * a ledger entry made carries that entry's id, so that the entry sent again makes no second one.
 */
const statements = [
  `CREATE TABLE stock_items (
     id uuid PRIMARY KEY,
     version integer NOT NULL CHECK (version > 0),
     document jsonb NOT NULL,
     search text NOT NULL,
     changed_by uuid NOT NULL REFERENCES people(id),
     changed_at timestamptz NOT NULL)`,
  'CREATE INDEX stock_items_search ON stock_items USING gin (search gin_trgm_ops)',
  `CREATE TABLE stock_items_before (
     item_id uuid NOT NULL REFERENCES stock_items(id),
     version integer NOT NULL,
     document jsonb NOT NULL,
     changed_by uuid NOT NULL REFERENCES people(id),
     changed_at timestamptz NOT NULL,
     PRIMARY KEY (item_id, version))`,
  // No foreign key to the item: what was fitted was fitted, whether or not the item is on record here.
  `CREATE TABLE stock_moves (
     id uuid PRIMARY KEY,
     item_id uuid NOT NULL,
     change integer NOT NULL,
     reason text NOT NULL,
     job_id uuid REFERENCES jobs(id),
     moved_by uuid NOT NULL REFERENCES people(id),
     moved_at timestamptz NOT NULL)`,
  'CREATE INDEX stock_moves_item ON stock_moves (item_id, moved_at)',
  // Jobs that want parts, and closed ones that nobody has collected: few among many.
  `CREATE INDEX job_cards_parts ON job_cards (number) WHERE jsonb_array_length(card->'parts') > 0`,
  `CREATE INDEX job_cards_uncollected ON job_cards (opened_at) WHERE state = 'closed' AND card->>'collected' = 'false'`,
  `CREATE INDEX ledger_entries_part_number ON ledger_entries
     (upper(regexp_replace(body->>'number', '[^[:alnum:]]', '', 'g'))) WHERE kind IN ('part.wanted', 'part.fitted')`,
  `CREATE INDEX ledger_entries_want ON ledger_entries ((body->>'want')) WHERE kind = 'part.ordered'`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
