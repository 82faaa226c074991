/** Who works here, and how long they take. What they may do is in accounts/. */
import type { Paces, Person } from '@veglia/contract';
import { paceOf, type TimedJob } from '@veglia/core';
import { QueryTypes, type Transaction } from 'sequelize';
import { ApiError } from './http/apiError.ts';
import type { Store } from './store.ts';

/** To be thrown where whoever is named as the writer is not here. */
export const unknownPerson = (id: string): ApiError =>
  new ApiError('unknown-person', [{ code: 'unknown-id', where: 'by', value: id, expected: 'person' }]);

/** Throws unknown-person. */
export async function requirePerson(store: Store, id: string, transaction?: Transaction): Promise<void> {
  const person = await store.models.people.findByPk(id, transaction ? { transaction } : {});
  if (person === null) throw unknownPerson(id);
}

/** By name. */
export async function listPeople(store: Store): Promise<Person[]> {
  const people = await store.models.people.findAll({ order: [['name', 'ASC']] });
  return people.map(({ id, name, role, leftAt }) => ({ id, name, role, left: leftAt !== null }));
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
