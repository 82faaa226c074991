/**
 * Photos on their way: each is in IndexedDB before it is sent and leaves it when the server has it. An entry names a photo by an id made
 * here, so the order in which both arrive is free.
 */
import { v7 as uuidv7 } from 'uuid';
import { shallowRef } from 'vue';
import { api, NotReached } from '../api.ts';
import { local, type WaitingPhoto } from './local.ts';

/** As the server takes; told before anything is sent. */
export const mostBytes = 20 * 1024 * 1024;
const retryAfter = 3000;
let timer: ReturnType<typeof setTimeout> | undefined;

export interface AddedPhoto {
  readonly id: string;
  readonly name: string;
}
export type Adding = AddedPhoto | { readonly refused: 'too-large' } | { readonly refused: 'said'; readonly why: string };

/** Keeps and sends one; where the server is away it waits here. */
export async function addPhoto(file: Blob, name: string): Promise<Adding> {
  if (file.size > mostBytes) return { refused: 'too-large' };
  const id = uuidv7();
  await (await local()).put('photos', { id, name, blob: file, at: new Date().toISOString() });
  const why = await send(id, file);
  return why === undefined ? { id, name } : { refused: 'said', why };
}

/** Undefined where it is stored or waits; else the server's words, and it is gone from here. */
async function send(id: string, blob: Blob): Promise<string | undefined> {
  try {
    const reply = await api.putPhoto(id, blob);
    await (await local()).delete('photos', id);
    return reply.ok ? undefined : reply.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    clearTimeout(timer);
    timer = setTimeout(() => void flushPhotos(), retryAfter);
    return undefined;
  }
}

/** Those the server refused when they were sent late: kept here, and told, until somebody lets them go. */
export const refusedPhotos = shallowRef<readonly WaitingPhoto[]>([]);

export async function flushPhotos(): Promise<void> {
  clearTimeout(timer);
  for (const photo of await (await local()).getAll('photos')) {
    if (photo.refused !== undefined) continue;
    const refused = await send(photo.id, photo.blob);
    if (refused !== undefined) await (await local()).put('photos', { ...photo, refused });
  }
  refusedPhotos.value = (await (await local()).getAll('photos')).filter(({ refused }) => refused !== undefined);
}

export async function letPhotoGo(id: string): Promise<void> {
  await (await local()).delete('photos', id);
  await flushPhotos();
}

/** Where a picture is to be had: here while it waits, else from the server. The caller lets go of an object URL. */
export async function photoUrl(id: string): Promise<string> {
  const waiting = await (await local()).get('photos', id);
  return waiting ? URL.createObjectURL(waiting.blob) : `/api/photos/${id}`;
}
