/** Demo data: people and jobs of an invented workshop, loaded once into a database without jobs. */
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { newJobSchema, personSchema } from '@veglia/contract';
import { v5 as uuidv5, v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { append } from '../jobs/ledger.ts';
import { takeIn } from '../jobs/jobs.ts';
import type { Store } from '../store.ts';

const peopleFile = z.object({ people: z.array(personSchema).min(1) });

/** A demo job: who and what, and entry bodies with the minutes after opening at which they were written. */
const demoJobSchema = z.strictObject({
  by: z.uuid(),
  openedDaysAgo: z.number().min(0),
  customer: newJobSchema.shape.customer,
  plate: newJobSchema.shape.plate,
  entries: z.array(z.strictObject({ minute: z.number().min(0), body: z.looseObject({ kind: z.string() }) })).min(1),
});

/** Namespace of ours, so that the same demo job has the same ids wherever it is loaded. */
const namespace = '6f0c1d1e-5d0a-5c7e-9a53-0d3d6a1f2b77';
const loadedKey = 'demo-loaded';

export async function loadDemo(store: Store, folder: string): Promise<void> {
  if ((await store.models.meta.findByPk(loadedKey)) !== null) return;
  const { people } = peopleFile.parse(JSON.parse(await readFile(path.join(folder, 'names.json'), 'utf8')));
  for (const person of people) {
    if ((await store.models.people.findByPk(person.id)) === null) await store.models.people.create(person);
  }
  const jobsFolder = path.join(folder, 'jobs');
  if ((await store.models.jobs.count()) === 0) {
    for (const name of (await readdir(jobsFolder)).filter((file) => file.endsWith('.json')).sort()) {
      await loadJob(store, name, demoJobSchema.parse(JSON.parse(await readFile(path.join(jobsFolder, name), 'utf8'))));
    }
  }
  await store.models.meta.create({ key: loadedKey, value: store.now().toISOString() });
}

async function loadJob(store: Store, name: string, demo: z.infer<typeof demoJobSchema>): Promise<void> {
  const minute = 60_000;
  const opened = store.now().getTime() - demo.openedDaysAgo * 24 * 60 * minute;
  const drafts = demo.entries.map((entry, index) => ({
    id: uuidv5(`${name}#${index}`, namespace),
    at: new Date(opened + entry.minute * minute).toISOString(),
    basedOn: index,
    body: entry.body,
  }));
  const id = uuidv5(name, namespace);
  await takeIn(store, { id, by: demo.by, customer: demo.customer, plate: demo.plate, entries: drafts.slice(0, 1) }, uuidv7);
  for (const draft of drafts.slice(1)) await append(store, id, demo.by, [draft]);
}
