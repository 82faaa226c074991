/**
 * Photos on their way: each is in IndexedDB before it is sent and leaves it when the server has it. An entry names a photo by an id made
 * here, so the order in which both arrive is free.
 */
import type { Photo } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { shallowRef } from 'vue';
import { api, NotReached } from '../api.ts';
import { exclusively, later, whenBack } from '../sync/browser.ts';
import { refusalOf } from '../sync/reply.ts';
import { Sync } from '../sync/sync.ts';
import { local, type WaitingPhoto } from './local.ts';

/** As the server takes; told before anything is sent. */
export const mostBytes = 20 * 1024 * 1024;

export interface AddedPhoto {
  readonly id: string;
  readonly name: string;
}
export type Adding = AddedPhoto | { readonly refused: 'too-large' } | { readonly refused: 'said'; readonly why: string };

/** Those the server refused when they were sent late: kept here, and told, until somebody lets them go. */
export const refusedPhotos = shallowRef<readonly WaitingPhoto[]>([]);
const all = async (): Promise<WaitingPhoto[]> => (await local()).getAll('photos');
async function tell(): Promise<void> {
  refusedPhotos.value = (await all()).filter(({ refused }) => refused !== undefined);
}

const sync = new Sync<WaitingPhoto, Photo>({
  open: async () => (await all()).filter(({ refused }) => refused === undefined),
  together: () => 1,
  async send([photo]) {
    if (!photo) return { kind: 'wait' };
    try {
      const reply = await api.putPhoto(photo.id, photo.blob);
      return reply.ok ? { kind: 'stored', sent: reply.value } : refusalOf(reply.problem);
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      return { kind: 'wait', ...(error.afterMs === undefined ? {} : { afterMs: error.afterMs }) };
    }
  },
  async stored([photo]) {
    if (photo) await (await local()).delete('photos', photo.id);
  },
  async refused(photo, why) {
    await (await local()).put('photos', { ...photo, refused: why });
  },
  exclusively: exclusively('veglia-photos'),
  later,
});

/** Keeps and sends one; where the server is away it waits here. */
export async function addPhoto(file: Blob, name: string): Promise<Adding> {
  if (file.size > mostBytes) return { refused: 'too-large' };
  const id = uuidv7();
  await (await local()).put('photos', { id, name, blob: file, at: new Date().toISOString() });
  await sync.flush();
  const left = await (await local()).get('photos', id);
  if (left?.refused === undefined) return { id, name };
  // Told where it was chosen, and nothing names it yet: it doesn't wait here.
  await (await local()).delete('photos', id);
  return { refused: 'said', why: left.refused };
}

/** Once for the page. */
export async function startPhotos(): Promise<void> {
  whenBack(sync);
  await sync.flush();
  await tell();
}

export async function letPhotoGo(id: string): Promise<void> {
  await (await local()).delete('photos', id);
  await tell();
}

export async function tryPhotoAgain({ refused: _, ...photo }: WaitingPhoto): Promise<void> {
  await (await local()).put('photos', photo);
  await sync.flush();
  await tell();
}

/** Where a picture is to be had: here while it waits, else from the server. The caller lets go of an object URL. */
export async function photoUrl(id: string): Promise<string> {
  const waiting = await (await local()).get('photos', id);
  return waiting ? URL.createObjectURL(waiting.blob) : `/api/photos/${id}`;
}

/** The picture itself. Throws NotReached where neither this browser nor the server has it. */
export async function photoBytes(id: string): Promise<Blob> {
  const waiting = await (await local()).get('photos', id);
  if (waiting) return waiting.blob;
  let reply: Response;
  try {
    reply = await fetch(`/api/photos/${id}`);
  } catch (error) {
    throw new NotReached(String(error));
  }
  if (!reply.ok) throw new NotReached(`photo: status ${reply.status}`);
  return reply.blob();
}
