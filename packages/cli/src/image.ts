/** `veglia image`: image files read, compared and made one, as the flash bench does. */
import { readFile, writeFile } from 'node:fs/promises';
import { gunzipSync } from 'node:zlib';
import {
  beginsAsSfdp,
  certainty,
  ContentReader,
  contentRuns,
  DumpComparer,
  DumpReader,
  InputRefused,
  maskSecrets,
  mostReads,
  noVotes,
  OwnFinder,
  readImageFile,
  readSfdp,
  readsNeeded,
  vote,
  type Content,
  type DumpComparison,
  type ImageFile,
} from '@veglia/core';

/** Larger packed files are unpacked by a program of their own: here they would have to fit into memory. */
const mostUnpacked = 2 ** 30;
/** Bytes compared at a time. */
const pieceBytes = 2 ** 20;

export const refused = (where: string, expected: string, value?: string): InputRefused =>
  new InputRefused([{ code: 'schema', where, expected, ...(value === undefined ? {} : { value }) }]);

/** Throws InputRefused where there is no such file, or it can’t be read as what it begins like. */
export async function opened(file: string): Promise<ImageFile & { readonly packed: boolean }> {
  let bytes: Buffer;
  try {
    bytes = await readFile(file);
  } catch (error) {
    throw new InputRefused([{ code: 'not-readable', where: file, expected: (error as Error).message }]);
  }
  const packed = bytes[0] === 0x1f && bytes[1] === 0x8b;
  if (packed) {
    try {
      bytes = gunzipSync(bytes, { maxOutputLength: mostUnpacked });
    } catch {
      throw refused(file, 'a whole gzip file of at most 1 GiB');
    }
  }
  const read = readImageFile(bytes);
  if ('reason' in read) throw refused(`${file}, line ${read.line}`, 'a valid record', read.reason);
  return { ...read, packed };
}

/** Never over a file. Throws InputRefused where one is there, or it can’t be written. */
async function writeNew(to: string, bytes: Uint8Array): Promise<void> {
  try {
    await writeFile(to, bytes, { flag: 'wx' });
  } catch (error) {
    throw refused(to, 'a file that is not there yet', (error as Error).message);
  }
}

/** What a file is and holds; `to`: its bytes are written there. */
export async function imageRead(file: string, to?: string): Promise<object> {
  const { bytes, gaps, ...more } = await opened(file);
  const reader = new DumpReader();
  reader.add(bytes);
  if (to !== undefined) await writeNew(to, bytes);
  return { ...more, gaps, ...reader.end() };
}

/** What a file holds; of a chip's own table what it says: neighbouring blocks of one kind as one run, what is recognised, versions. Texts are masked as on the screen. */
export async function imageIdentify(file: string): Promise<object> {
  const { bytes } = await opened(file);
  if (beginsAsSfdp(bytes)) return { bytes: bytes.length, sfdp: readSfdp(bytes) };
  const reader = new ContentReader(bytes.length);
  const finder = new OwnFinder();
  for (let at = 0; at < bytes.length; at += pieceBytes) {
    reader.add(bytes.subarray(at, at + pieceBytes));
    finder.add(bytes.subarray(at, at + pieceBytes));
  }
  const content = reader.end();
  const masked = (found: Content['strings']) => found.map(({ at, text }) => ({ at, text: maskSecrets(text) }));
  const { signatures, versions, strings } = content;
  return {
    bytes: bytes.length,
    runs: contentRuns(content),
    signatures,
    versions: masked(versions),
    strings: masked(strings),
    own: finder.end(),
  };
}

/** Files are read whole, up to 2 GiB each; larger ones are compared by the server. */
export async function imageCompare(first: string, second: string): Promise<DumpComparison> {
  const comparer = new DumpComparer();
  const [a, b] = await Promise.all([opened(first), opened(second)]);
  for (let at = 0; at < Math.max(a.bytes.length, b.bytes.length); at += pieceBytes)
    comparer.add(a.bytes.subarray(at, at + pieceBytes), b.bytes.subarray(at, at + pieceBytes));
  return comparer.end();
}

/** Three or more reads made one, written to `to`, which must not be there. Throws InputRefused where they differ in size. */
export async function imageCombine(to: string, files: readonly string[]): Promise<object> {
  if (files.length < 3 || files.length > mostReads) throw refused('reads', `3 to ${mostReads} files`, String(files.length));
  const reads = await Promise.all(files.map(opened));
  const [first] = reads;
  const other = reads.findIndex(({ bytes }) => bytes.length !== first?.bytes.length);
  if (!first || other >= 0) throw refused(files[other] ?? 'reads', `${first?.bytes.length ?? 0} bytes`);
  const out = new Uint8Array(first.bytes.length);
  const votes = vote(
    reads.map(({ bytes }) => bytes),
    out,
    noVotes(reads.length),
  );
  await writeNew(to, out);
  const { unsteadyBytes, ones, zeros } = votes;
  return {
    reads: reads.length,
    bytes: out.length,
    unsteadyBytes,
    ones,
    zeros,
    certainty: certainty(votes),
    readsFor99: readsNeeded(votes, 0.99) ?? null,
  };
}
