/** How much goes into one request. Under what the server takes (200 entries, 1 MiB), with room for the envelope. */
export const mostEntries = 100;
export const mostBytes = 400_000;

const encoder = new TextEncoder();

/** How many of the first fit; one that is too large by itself goes alone, and the server says so. */
export function fitTogether(items: readonly unknown[], sameRequest: (index: number) => boolean): number {
  let bytes = 0;
  let count = 0;
  for (; count < items.length && count < mostEntries && sameRequest(count); count += 1) {
    bytes += encoder.encode(JSON.stringify(items[count])).length;
    if (bytes > mostBytes) break;
  }
  return Math.max(1, count);
}
