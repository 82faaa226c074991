/** Several reads of a failing chip made one image, a chunk of each in memory at a time. */
import type { Combined, CombineImages } from '@veglia/contract';
import { certainty, InputRefused, noVotes, readsNeeded, vote, type Votes } from '@veglia/core';
import { chunksOf } from '../files/store.ts';
import type { Store } from '../store.ts';
import { mostImageBytes, publishImage, readImage } from './images.ts';
import { receive } from './uploads.ts';

/** As sure as a bench wants a rebuilt dump to be before it is used. */
const wanted = 0.99;

/** Throws not-found, entry-conflict where the id is taken, InputRefused where the reads differ in size. */
export async function combineImages(store: Store, id: string, { by, reads, facts }: CombineImages): Promise<Combined> {
  const images = await Promise.all(reads.map((one) => readImage(store, one)));
  const [first] = images;
  const other = images.find(({ size }) => size !== first?.size);
  if (!first || other) throw new InputRefused([{ code: 'schema', where: 'reads', expected: 'reads of one size' }]);
  let votes: Votes = noVotes(reads.length);
  async function* combined(): AsyncGenerator<Uint8Array> {
    const sources = reads.map((one) => chunksOf(store, one));
    for (;;) {
      const pieces = await Promise.all(sources.map((one) => one.next()));
      const bytes = pieces.flatMap(({ done, value }) => (done === true ? [] : [value as Uint8Array]));
      if (bytes.length < reads.length) return;
      const out = new Uint8Array(bytes[0]?.length ?? 0);
      votes = vote(bytes, out, votes);
      yield out;
    }
  }
  await receive(store, id, 0, combined(), mostImageBytes);
  const image = await publishImage(store, id, {
    by,
    size: first.size,
    facts: { ...facts, reconstructed: { reads: reads.length, doubtfulBytes: votes.unsteadyBytes } },
  });
  return {
    image,
    reads: reads.length,
    unsteadyBytes: votes.unsteadyBytes,
    ones: votes.ones,
    zeros: votes.zeros,
    certainty: certainty(votes),
    readsFor99: readsNeeded(votes, wanted) ?? null,
  };
}
