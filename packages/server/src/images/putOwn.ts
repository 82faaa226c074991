/** A set's own content put into an image that is not its own: what is foreign starts the board, what is its own stays. */
import type { Image, PutOwn } from '@veglia/contract';
import { InputRefused, ownRefused, type OwnImage, type OwnPlace } from '@veglia/core';
import { bytesOf } from './send.ts';
import type { Store } from '../store.ts';
import { mostImageBytes, publishImage, readImage } from './images.ts';
import { receive } from './uploads.ts';

const ownImage = ({ size, facts }: Image): OwnImage => ({ size, ...facts });

/** The marked places from `own`, everything else from `into`. */
async function* joined(store: Store, into: Image, own: Image, places: readonly OwnPlace[]): AsyncGenerator<Uint8Array> {
  let at = 0;
  for (const { from, to } of places) {
    yield* bytesOf(store, into.id, at, from);
    yield* bytesOf(store, own.id, from, to);
    at = to;
  }
  yield* bytesOf(store, into.id, at, into.size);
}

/** Makes the image `id` of two. Throws not-found, unknown-person, entry-conflict where the id is taken, InputRefused where the two don't go together. */
export async function putOwn(store: Store, id: string, { by, into, own }: PutOwn): Promise<Image> {
  const [base, from] = await Promise.all([readImage(store, into), readImage(store, own)]);
  const refused = ownRefused(ownImage(base), ownImage(from));
  if (refused !== undefined) throw new InputRefused([{ code: 'schema', where: 'own', expected: expected[refused] }]);
  const places = [...(from.facts.own ?? [])];
  await receive(store, id, 0, joined(store, base, from, places), mostImageBytes);
  const { job, userData } = from.facts;
  return publishImage(store, id, {
    by,
    size: base.size,
    facts: {
      ...base.facts,
      name: `${base.facts.name.slice(0, 100)}, own content in`,
      own: places,
      ownFrom: from.sha256,
      ...(job === undefined ? {} : { job }),
      ...(userData === undefined ? {} : { userData }),
    },
  });
}
const expected = {
  'nothing-marked': 'a dump with own content marked',
  'size-differs': 'two images of one size',
  'memory-differs': 'two images of one memory and area',
  'board-differs': 'two images of one board',
  'board-unknown': 'two images whose board number is known',
} as const;
