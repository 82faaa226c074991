/**
 * What the shop has counted: closed jobs (kept beside their cards) and experience told by people, as numbered snapshots.
 * A number never changes its meaning; a new one is made when somebody asks and the counts are no longer the newest.
 */
import type { NewTold, Told } from '@veglia/contract';
import { countsSchema, experienceOfCards, mergeCounts, type Counts, type Problem } from '@veglia/core';
import { Op, type Transaction } from 'sequelize';
import { countedBoards } from '../boards/boards.ts';
import { againIfOvertaken, requireSame } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import { requirePerson } from '../people.ts';
import type { Store } from '../store.ts';

/** Number of the lock that keeps two from making the same snapshot (any constant of ours). */
const snapshotLock = 8_346_002;

/** Number of the newest counts, made now where something was closed or told since; 0 while nothing was ever counted. */
export async function newestSnapshot(store: Store): Promise<number> {
  return store.sequelize.transaction(async (transaction) => {
    await store.sequelize.query('SELECT pg_advisory_xact_lock($1)', { bind: [snapshotLock], transaction });
    const cards = await store.models.cards.findAll({ where: { counted: { [Op.ne]: null } }, transaction });
    const told = await store.models.told.findAll({ where: { withdrawnAt: null }, transaction });
    const jobs = mergeCounts(
      cards.map(({ counted }) => countsSchema.parse(counted)),
      [],
      0,
    );
    const merged = mergeCounts(
      [jobs],
      [
        ...experienceOfCards(await countedBoards(store, transaction), jobs.jobs),
        ...told.map(({ layout, family, symptom, fault, n, by }) => ({
          layout,
          ...(family === null ? {} : { family }),
          ...(symptom === null ? {} : { symptom }),
          fault,
          n,
          by,
        })),
      ],
      0,
    );
    const last = await store.models.snapshots.findOne({ order: [['number', 'DESC']], transaction });
    const plain = (counts: Counts): string => JSON.stringify(countsSchema.parse({ ...counts, snapshot: 0 }));
    if (last !== null && plain(countsSchema.parse(last.counts)) === plain(merged)) return last.number;
    if (last === null && merged.jobs.length === 0 && merged.told.length === 0) return 0;
    return (await store.models.snapshots.create({ counts: merged, madeAt: store.now() }, { transaction })).number;
  });
}

/** The counts of a number; undefined for 0, the pack alone. Throws unknown-counts. */
export async function countsAt(store: Store, number: number, transaction?: Transaction): Promise<Counts | undefined> {
  if (number === 0) return undefined;
  const known = store.counts.get(number);
  if (known) return known;
  const row = await store.models.snapshots.findByPk(number, transaction ? { transaction } : {});
  if (row === null) throw new ApiError('unknown-counts');
  const counts: Counts = { ...countsSchema.parse(row.counts), snapshot: number };
  store.counts.set(number, counts);
  return counts;
}

/** All field experience, newest first. */
export async function listTold(store: Store): Promise<Told[]> {
  const rows = await store.models.told.findAll({ order: [['at', 'DESC']] });
  return rows.map(({ id, by, layout, family, symptom, fault, n, at, withdrawnAt }) => ({
    id,
    by,
    layout,
    family,
    symptom,
    fault,
    n,
    at: at.toISOString(),
    withdrawn: withdrawnAt !== null,
  }));
}

/** Sent twice with one id it is kept once. What it speaks of must be in the current pack. */
export async function tell(store: Store, told: NewTold): Promise<Told[]> {
  const { pack, faultsOf } = await store.packs.compiled(await store.packs.currentHash());
  await requirePerson(store, told.by);
  const problems: Problem[] = [];
  const faults = faultsOf.get(told.layout);
  const family = pack.families.find(({ id }) => id === told.family);
  if (!faults) problems.push({ code: 'unknown-id', where: 'layout', value: told.layout, expected: 'layout' });
  else if (!faults.some((fault) => fault.id === told.fault || fault.assembly === told.fault))
    problems.push({ code: 'unknown-id', where: 'fault', value: told.fault, expected: 'fault or assembly of this layout' });
  if (told.family !== null && !family?.layouts.includes(told.layout))
    problems.push({ code: 'unknown-id', where: 'family', value: told.family, expected: 'family of this layout' });
  if (told.symptom !== null && !pack.symptoms.some(({ id }) => id === told.symptom))
    problems.push({ code: 'unknown-id', where: 'symptom', value: told.symptom, expected: 'symptom' });
  if (problems.length > 0) throw new ApiError('bad-request', problems);
  await againIfOvertaken(async () => {
    const there = await store.models.told.findByPk(told.id);
    if (there === null) await store.models.told.create({ ...told, at: store.now(), withdrawnAt: null });
    else {
      const { id, by, layout, family, symptom, fault, n } = there;
      requireSame(id, { id, by, layout, family, symptom, fault, n }, told);
    }
  });
  return listTold(store);
}

/** It no longer counts from the next snapshot on; jobs already opened keep theirs. */
export async function withdrawTold(store: Store, id: string): Promise<Told[]> {
  if ((await store.models.told.findByPk(id)) === null) throw new ApiError('not-found');
  await store.models.told.update({ withdrawnAt: store.now() }, { where: { id, withdrawnAt: null } });
  return listTold(store);
}
