/** Demo data: people and jobs of an invented workshop, loaded once into a database without jobs. */
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { imageFactsSchema, newJobSchema, roleSchema, shopSettingsSchema, usualShopSettings } from '@veglia/contract';
import { v5 as uuidv5, v7 as uuidv7 } from 'uuid';
import { parseBoardFile, stockItemSchema } from '@veglia/core';
import { goodContent } from '@veglia/simulators/set';
import { z } from 'zod';
import { changeBoard } from '../boards/boards.ts';
import { newestSnapshot } from '../counts/counts.ts';
import { storePhoto } from '../files/photos.ts';
import { mostImageBytes, publishImage } from '../images/images.ts';
import { receive } from '../images/uploads.ts';
import { takeIn } from '../jobs/jobs.ts';
import { changeStock, moveStock } from '../parts/stock.ts';
import { changeShop } from '../shop.ts';
import type { Store } from '../store.ts';

const someone = z.object({ id: z.uuid(), name: z.string(), role: roleSchema });
const peopleFile = z.object({ people: z.array(someone).min(1), counter: someone });

/** A demo job: who and what, and entry bodies with the minutes after opening at which they were written. */
const demoJobSchema = z.strictObject({
  by: z.uuid(),
  openedDaysAgo: z.number().min(0),
  customer: newJobSchema.shape.customer,
  plate: newJobSchema.shape.plate,
  /** Days from the loading until the day it was promised for; negative: past. */
  promisedInDays: z.number().int().optional(),
  /** Days from the loading until parts that are on order are expected. */
  partsInDays: z.number().int().optional(),
  /** A timer that runs while the demo is looked at: minutes in all, and left. */
  waiting: z.strictObject({ name: z.string(), minutes: z.number(), left: z.number(), toward: z.looseObject({}).optional() }).optional(),
  entries: z.array(z.strictObject({ minute: z.number().min(0), body: z.looseObject({ kind: z.string() }) })).min(1),
});

/** Namespace of ours, so that the same demo job has the same ids wherever it is loaded. */
const namespace = '6f0c1d1e-5d0a-5c7e-9a53-0d3d6a1f2b77';
const loadedKey = 'demo-loaded';

/** Loads the demo's people, settings and jobs into an empty database, once. */
export async function loadDemo(store: Store, folder: string): Promise<void> {
  if ((await store.models.meta.findByPk(loadedKey)) !== null) return;
  const { people, counter } = peopleFile.parse(JSON.parse(await readFile(path.join(folder, 'names.json'), 'utf8')));
  for (const person of [...people, counter]) {
    if ((await store.models.people.findByPk(person.id)) === null) await store.models.people.create(person);
  }
  const jobsFolder = path.join(folder, 'jobs');
  if ((await store.models.shop.count()) === 0) {
    const shop = JSON.parse(await readFile(path.join(folder, 'shop.json'), 'utf8')) as object;
    await changeShop(store, { by: people[0]?.id ?? '', version: 0, settings: shopSettingsSchema.parse({ ...usualShopSettings, ...shop }) });
  }
  if ((await store.models.jobs.count()) === 0) {
    const names = (await readdir(jobsFolder)).filter((file) => file.endsWith('.json')).sort();
    const jobs = await Promise.all(
      names.map(async (name) => ({ name, job: demoJobSchema.parse(JSON.parse(await readFile(path.join(jobsFolder, name), 'utf8'))) })),
    );
    // Closed ones first, from the pack alone; those still open start from what these counted.
    const closed = ({ job }: (typeof jobs)[number]): boolean => job.entries.some(({ body }) => body.kind === 'job.closed');
    for (const { name, job } of jobs.filter(closed)) await loadJob(store, name, job, 0);
    const snapshot = await newestSnapshot(store);
    for (const { name, job } of jobs.filter((one) => !closed(one))) await loadJob(store, name, job, snapshot);
  }
  await loadBoards(store, path.join(folder, 'boards'), people[0]?.id ?? '');
  await loadImages(store, path.join(folder, 'images.json'), people[0]?.id ?? '');
  await loadStock(store, path.join(folder, 'stock.json'), people[0]?.id ?? '');
  await store.models.meta.create({ key: loadedKey, value: store.now().toISOString() });
}

/** A folder without boards is a demo without boards. */
async function loadBoards(store: Store, folder: string, by: string): Promise<void> {
  const names = (await readdir(folder).catch(() => [])).filter((file) => file.endsWith('.json')).sort();
  if ((await store.models.boardVersions.count()) > 0) return;
  for (const name of names) {
    const { boards, photos } = parseBoardFile(JSON.parse(await readFile(path.join(folder, name), 'utf8')));
    for (const { id, base64 } of photos) await storePhoto(store, id, Buffer.from(base64, 'base64'));
    for (const board of boards) await changeBoard(store, board.id, { by, version: 0, reason: 'Demo data', board });
  }
}

const imagesFile = z.object({
  images: z.array(z.strictObject({ seed: z.number().int(), daysAgo: z.number().min(0), facts: imageFactsSchema })),
});
/** A small library; what is in the images is made, not kept. */
async function loadImages(store: Store, file: string, by: string): Promise<void> {
  const { images } = imagesFile.parse(JSON.parse(await readFile(file, 'utf8')));
  for (const { seed, daysAgo, facts } of images) {
    const content = goodContent(seed);
    const id = uuidv5(`image ${seed}`, namespace);
    await receive(store, id, 0, once(content), mostImageBytes);
    const then = { ...store, now: () => new Date(store.now().getTime() - daysAgo * 86_400_000) };
    await publishImage(then, id, { by, size: content.length, facts });
  }
}
async function* once(content: Uint8Array): AsyncGenerator<Uint8Array> {
  await Promise.resolve();
  yield content;
}

/** The day a part is expected on moves with the day on which the demo is loaded. */
function expected(body: { kind: string } & Record<string, unknown>, inDays: number | undefined, now: Date): typeof body {
  if (body.kind !== 'part.ordered' || inDays === undefined) return body;
  return { ...body, expectedOn: new Date(now.getTime() + inDays * 86_400_000).toISOString().slice(0, 10) };
}

const stockFile = z.object({ stock: z.array(z.strictObject({ count: z.number().int().min(0), item: stockItemSchema })) });
/** A folder without a stock is a demo without one. */
async function loadStock(store: Store, file: string, by: string): Promise<void> {
  const text = await readFile(file, 'utf8').catch(() => undefined);
  if (text === undefined) return;
  for (const { item, count } of stockFile.parse(JSON.parse(text)).stock) {
    await changeStock(store, item.id, { by, version: 0, item });
    if (count > 0) await moveStock(store, item.id, { id: uuidv5(`stock ${item.id}`, namespace), by, change: count, reason: 'counted' });
  }
}

async function loadJob(store: Store, name: string, demo: z.infer<typeof demoJobSchema>, snapshot: number): Promise<void> {
  const minute = 60_000;
  const opened = store.now().getTime() - demo.openedDaysAgo * 24 * 60 * minute;
  const entries = demo.entries.map((entry, index) => ({
    id: uuidv5(`${name}#${index}`, namespace),
    at: new Date(opened + entry.minute * minute).toISOString(),
    basedOn: index,
    body: expected(entry.body, demo.partsInDays, store.now()),
  }));
  const now = store.now().getTime();
  const add = (what: string, at: number, body: { kind: string } & Record<string, unknown>): void =>
    void entries.push({ id: uuidv5(`${name}#${what}`, namespace), at: new Date(at).toISOString(), basedOn: entries.length, body });
  if (demo.promisedInDays !== undefined) {
    const on = new Date(now + demo.promisedInDays * 24 * 60 * minute).toISOString().slice(0, 10);
    add('promised', opened + 30 * minute, { kind: 'date.promised', v: 1, on });
  }
  if (demo.waiting) {
    const { name: what, minutes, left, toward } = demo.waiting;
    add('waiting', now - (minutes - left) * minute, { kind: 'wait.started', v: 2, name: what, minutes, ...(toward ? { toward } : {}) });
  }
  const id = uuidv5(name, namespace);
  await takeIn(store, { id, by: demo.by, customer: demo.customer, plate: demo.plate, entries }, uuidv7, snapshot);
}
