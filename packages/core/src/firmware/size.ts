/** Sizes of memories as people write them. */
// K, M and G of a memory are powers of 1024 (JEDEC JESD100B.01; value from memory).
const powers: Readonly<Record<string, number>> = { '': 1, k: 2 ** 10, m: 2 ** 20, g: 2 ** 30 };

/**
 * Bytes of "4 MiB", "4MB", "32 Mbit", "512 Kbit", "4096". A bare "32M" is refused: on a chip it is bits, in a file list bytes. Undefined where it is
 * no size.
 */
export function parseBytes(text: string): number | undefined {
  const [, digits = '', power = '', unit = ''] = /^\s*(\d+(?:[.,]\d+)?)\s*([kmg]?)i?\s*(bits?|bytes?|b)?\s*$/i.exec(text) ?? [];
  const bits = /^bit/i.test(unit) || unit === 'b';
  const value = (Number(digits.replace(',', '.')) * (powers[power.toLowerCase()] ?? Number.NaN)) / (bits ? 8 : 1);
  return digits === '' || (power !== '' && unit === '') || !Number.isInteger(value) || value < 1 ? undefined : value;
}

/** Bytes in the largest unit that keeps it exact; otherwise to a tenth of a mebibyte. */
export function formatBytes(bytes: number): string {
  for (const [unit, size] of [
    ['GiB', 2 ** 30],
    ['MiB', 2 ** 20],
    ['KiB', 2 ** 10],
  ] as const)
    if (bytes >= size && bytes % size === 0) return `${bytes / size} ${unit}`;
  return bytes > 2 ** 20 ? `${(bytes / 2 ** 20).toFixed(1)} MiB` : `${bytes} B`;
}
