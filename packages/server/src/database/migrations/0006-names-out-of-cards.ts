import type { QueryInterface } from 'sequelize';

/** A card has its customer's name from the customer's own row: erased there, it is erased. */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query(`UPDATE job_cards SET card = card - 'customerName'`);
}
