/** What people type into number fields. Undefined where it isn't one. */

/** A number between two bounds; with `whole`, no fraction. */
export function parseBetween(typed: string, least: number, most: number, whole = false): number | undefined {
  const text = typed.trim().replace(',', '.');
  if (!/^\d+(\.\d+)?$/.test(text)) return undefined;
  const value = Number(text);
  return value >= least && value <= most && (!whole || Number.isInteger(value)) ? value : undefined;
}
