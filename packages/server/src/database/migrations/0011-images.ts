import type { QueryInterface } from 'sequelize';

/**
 * Memory images. While one comes in it is an upload: manifest pages as of a file, the bytes that don't fill a chunk yet, and the state of each hash, so
 * that it goes on where it was cut off. Once whole it is a file with an entry in the library.
 */
const statements = [
  `CREATE TABLE uploads (
     id uuid PRIMARY KEY,
     received bigint NOT NULL CHECK (received >= 0),
     pending bytea NOT NULL CHECK (octet_length(pending) < 65536),
     hash_states bytea[] NOT NULL,
     touched_at timestamptz NOT NULL)`,
  `CREATE TABLE upload_pages (
     upload_id uuid NOT NULL REFERENCES uploads(id) ON DELETE CASCADE,
     page integer NOT NULL CHECK (page >= 0),
     chunk_numbers bigint[] NOT NULL CHECK (cardinality(chunk_numbers) BETWEEN 1 AND 4096),
     PRIMARY KEY (upload_id, page))`,
  `CREATE TABLE images (
     id uuid PRIMARY KEY REFERENCES files(id),
     crc32 text NOT NULL CHECK (crc32 ~ '^[0-9a-f]{8}$'),
     md5 text NOT NULL CHECK (md5 ~ '^[0-9a-f]{32}$'),
     facts jsonb NOT NULL,
     added_by uuid NOT NULL REFERENCES people(id),
     added_at timestamptz NOT NULL)`,
  'CREATE INDEX files_sha256 ON files (sha256)',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
