import type { QueryInterface } from 'sequelize';

/** What is likeliest stands in a card with its probability, which was called odds; the ledger's rows stay as they were written. */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query(
    `UPDATE job_cards SET card = jsonb_set(card #- '{top,odds}', '{top,probability}', card #> '{top,odds}')
      WHERE card #> '{top,odds}' IS NOT NULL`,
  );
}
