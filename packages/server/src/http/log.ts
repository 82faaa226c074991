/**
 * What is logged: never what people wrote. A database's error carries the statement, its parameters and, in its sentence, the values
 * themselves; of such an error only what names the fault is kept.
 */
import { pino, type DestinationStream, type Logger } from 'pino';

/** What of an error goes into the log: no parameters, no personal data. */
export interface LoggedError {
  readonly type: string;
  /** Left out where it may hold what somebody wrote. */
  readonly message?: string;
  /** PostgreSQL's SQLSTATE, or the system's name of the error. */
  readonly code?: string;
  readonly table?: string;
  readonly constraint?: string;
  /** Where, without the sentence. */
  readonly at: readonly string[];
}

const named = (value: unknown): string | undefined => (typeof value === 'string' && value !== '' ? value : undefined);

/** Any value that was thrown; one that is no error is told by its type alone. */
export function safeError(error: unknown): LoggedError {
  if (!(error instanceof Error)) return { type: typeof error, at: [] };
  const { original, parent } = error as { original?: unknown; parent?: unknown };
  const inner = (original instanceof Error ? original : parent instanceof Error ? parent : error) as Error & Record<string, unknown>;
  // A statement, a table, a SQLSTATE: this is the database's, and its sentence quotes values.
  const ofDatabase = inner !== error || 'sql' in error || 'severity' in inner || error.name.startsWith('Sequelize');
  const code = named(inner.code);
  const table = named(inner.table);
  const constraint = named(inner.constraint);
  return {
    type: error.name,
    ...(ofDatabase ? {} : { message: error.message }),
    ...(code === undefined ? {} : { code }),
    ...(table === undefined ? {} : { table }),
    ...(constraint === undefined ? {} : { constraint }),
    at: (error.stack ?? '')
      .split('\n')
      .filter((line) => /^\s+at /.test(line))
      .map((line) => line.trim()),
  };
}

/** Only method, path and outcome of a request: bodies, headers and queries may hold what people wrote. */
export const requestSerializers = {
  err: safeError,
  req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({ id, method, url: url.split('?', 1)[0] }),
  res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
};

/** Writes JSON lines to standard output, or to the destination given. */
export const createLog = (level: string, destination?: DestinationStream): Logger =>
  pino({ level, serializers: { err: safeError } }, ...((destination ? [destination] : []) as [DestinationStream]));
