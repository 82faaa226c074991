/** "0x2000", "8192"; undefined where it is neither, or not below `size`. */
export function offsetOf(text: string, size: number): number | undefined {
  const plain = text.trim().toLowerCase();
  const value = /^0x[0-9a-f]+$/.test(plain) ? Number.parseInt(plain.slice(2), 16) : /^\d+$/.test(plain) ? Number(plain) : Number.NaN;
  return Number.isSafeInteger(value) && value < size ? value : undefined;
}
