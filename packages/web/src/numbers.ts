/** What people type into number fields. Undefined where it isn't one. */

/** "12", "12.5", "12,50" -> minor units. */
export function parsePrice(typed: string): number | undefined {
  const match = /^(\d{1,7})(?:[.,](\d{1,2}))?$/.exec(typed.trim());
  return match ? Number(match[1]) * 100 + Number((match[2] ?? '').padEnd(2, '0')) : undefined;
}

/** A number between two bounds; with `whole`, no fraction. */
export function parseBetween(typed: string, least: number, most: number, whole = false): number | undefined {
  const text = typed.trim().replace(',', '.');
  if (!/^\d+(\.\d+)?$/.test(text)) return undefined;
  const value = Number(text);
  return value >= least && value <= most && (!whole || Number.isInteger(value)) ? value : undefined;
}
