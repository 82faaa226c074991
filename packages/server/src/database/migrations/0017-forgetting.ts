/** The audit is only added to, but for addresses and names in it, which may be emptied. */
import type { QueryInterface } from 'sequelize';

const statements = [
  `CREATE FUNCTION audit_only_forgets() RETURNS trigger LANGUAGE plpgsql AS $$
   BEGIN
     IF (NEW.id, NEW.at, NEW.what, NEW.person_id) IS DISTINCT FROM (OLD.id, OLD.at, OLD.what, OLD.person_id)
        OR (NEW.about IS NOT NULL AND NEW.about IS DISTINCT FROM OLD.about)
        OR (NEW.from_address IS NOT NULL AND NEW.from_address IS DISTINCT FROM OLD.from_address) THEN
       RAISE EXCEPTION 'the audit is only added to' USING ERRCODE = 'insufficient_privilege';
     END IF;
     RETURN NEW;
   END $$`,
  'DROP TRIGGER audit_append_only ON audit',
  `CREATE TRIGGER audit_append_only BEFORE DELETE ON audit FOR EACH ROW EXECUTE FUNCTION ledger_is_append_only()`,
  `CREATE TRIGGER audit_only_forgets BEFORE UPDATE ON audit FOR EACH ROW EXECUTE FUNCTION audit_only_forgets()`,
  'CREATE INDEX audit_addresses ON audit (at) WHERE from_address IS NOT NULL',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
