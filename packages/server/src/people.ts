/** Who may write. Accounts come later; a name is needed now, so that every entry has somebody behind it. */
import type { Paces, Person } from '@veglia/contract';
import { paceOf, type TimedJob } from '@veglia/core';
import { QueryTypes, type Transaction } from 'sequelize';
import { againIfOvertaken, requireSame } from './http/again.ts';
import { ApiError } from './http/apiError.ts';
import type { Store } from './store.ts';

/** Throws unknown-person. */
export async function requirePerson(store: Store, id: string, transaction?: Transaction): Promise<void> {
  const person = await store.models.people.findByPk(id, transaction ? { transaction } : {});
  if (person === null) throw new ApiError('unknown-person', [{ code: 'unknown-id', where: 'by', value: id, expected: 'person' }]);
}

/** Sent twice with one id, somebody is added once. Throws entry-conflict for another name. */
export async function addPerson(store: Store, { id, name }: Person): Promise<Person[]> {
  await againIfOvertaken(async () => {
    const there = await store.models.people.findByPk(id);
    if (there === null) await store.models.people.create({ id, name });
    else requireSame(id, { name: there.name }, { name });
  });
  return listPeople(store);
}

/** By name. */
export async function listPeople(store: Store): Promise<Person[]> {
  const people = await store.models.people.findAll({ order: [['name', 'ASC']] });
  return people.map(({ id, name }) => ({ id, name }));
}

/** Of everybody who closed a job whose minutes were typed. */
export async function listPaces(store: Store): Promise<Paces> {
  const rows = await store.sequelize.query<{ timed: TimedJob }>(
    `SELECT card->'timed' AS timed FROM job_cards WHERE state = 'closed' AND card ? 'timed'`,
    { type: QueryTypes.SELECT },
  );
  const jobs = new Map<string, TimedJob[]>();
  for (const { timed } of rows) jobs.set(timed.by, [...(jobs.get(timed.by) ?? []), timed]);
  return { people: [...jobs].map(([person, timed]) => ({ person, ...paceOf(timed) })) };
}
