/** What upgrades of old documents share: a key by its new name, and nothing else touched. */

/** The value if it is a plain object; undefined else. */
export function asRecord(value: unknown): Readonly<Record<string, unknown>> | undefined {
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Readonly<Record<string, unknown>>) : undefined;
}

/** The same object with `from` called `to`; as it is where it isn't an object, has no `from`, or has a `to` already. Throws nothing. */
export function renamed(value: unknown, from: string, to: string): unknown {
  const record = asRecord(value);
  if (!record || !Object.hasOwn(record, from) || Object.hasOwn(record, to)) return value;
  return Object.fromEntries(Object.entries(record).map(([key, inner]) => [key === from ? to : key, inner]));
}
