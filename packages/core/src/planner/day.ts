/** Promised days as minutes of work from now. */

/** Values of ours, until a shop states its hours: work ends at 17:00, and a day has eight hours of it. */
const endOfDay = 17 * 60;
const dayMinutes = 8 * 60;

/**
 * Working minutes until the end of a promised day; negative once it is past. `on` and `today` are YYYY-MM-DD, `minuteOfDay` counts
 * from midnight, both by the shop's clock. Days of rest aren't known, and count as days.
 */
export function minutesUntil(on: string, today: string, minuteOfDay: number): number {
  const days = Math.round((Date.parse(on) - Date.parse(today)) / 86_400_000);
  const leftToday = Math.min(dayMinutes, Math.max(0, endOfDay - minuteOfDay));
  return days < 0 ? days * dayMinutes : days * dayMinutes + leftToday;
}
