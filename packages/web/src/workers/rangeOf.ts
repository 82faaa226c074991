/** Bytes of a stored image, from `from` to before `to`; none behind its end. Throws what fetch throws, and Error where the server refuses. */
export async function rangeOf(address: string, size: number, from: number, to: number): Promise<Uint8Array> {
  const end = Math.min(to, size);
  if (end <= from) return new Uint8Array();
  const reply = await fetch(address, { headers: { range: `bytes=${from}-${end - 1}` } });
  if (!reply.ok) throw new Error(`status ${reply.status}`);
  return new Uint8Array(await reply.arrayBuffer());
}
