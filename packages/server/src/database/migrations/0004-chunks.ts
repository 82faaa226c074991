import type { QueryInterface } from 'sequelize';

/**
 * Photos and images, cut into chunks of 64 KiB that are kept once however many files hold them. A file's manifest is pages of chunk
 * numbers; chunks of nothing but FF or 00 are only named (numbers -1 and -2).
 */
const statements = [
  `CREATE TABLE chunks (
     number bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
     sha256 bytea NOT NULL UNIQUE CHECK (octet_length(sha256) = 32),
     bytes bytea NOT NULL CHECK (octet_length(bytes) BETWEEN 1 AND 65536),
     stored_at timestamptz NOT NULL)`,
  `CREATE TABLE files (
     id uuid PRIMARY KEY,
     sha256 bytea NOT NULL CHECK (octet_length(sha256) = 32),
     size bigint NOT NULL CHECK (size >= 0),
     media_type text NOT NULL,
     stored_at timestamptz NOT NULL)`,
  `CREATE TABLE file_pages (
     file_id uuid NOT NULL REFERENCES files(id) ON DELETE CASCADE,
     page integer NOT NULL CHECK (page >= 0),
     chunk_numbers bigint[] NOT NULL CHECK (cardinality(chunk_numbers) BETWEEN 1 AND 4096),
     PRIMARY KEY (file_id, page))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
