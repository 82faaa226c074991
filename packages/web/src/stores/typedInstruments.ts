/** What stands in the instruments' fields, as typed: by job, or for none. Going elsewhere and back loses nothing, nor does a reload. */
import { useSessionStorage } from '@vueuse/core';
import { defineStore } from 'pinia';

type Fields = Record<string, string>;
const same = (a: Readonly<Fields>, b: Readonly<Fields>): boolean =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].every((id) => (a[id] ?? '') === (b[id] ?? ''));

export const useTypedInstruments = defineStore('typed-instruments', () => {
  const typed = useSessionStorage<Record<string, Fields>>('veglia.instruments', {});
  /** What was put in before anybody typed. */
  const put = new Map<string, Readonly<Fields>>();
  /** Fields of an instrument in a job (or in none: the empty id); `first` stands in them until something is typed, and follows what is known of it. */
  function of(job: string, instrument: string, first: () => Readonly<Fields> = () => ({})): Fields {
    const key = `${job} ${instrument}`;
    const start = first();
    const known = typed.value[key];
    const before = put.get(key) ?? {};
    if (known && (!same(known, before) || same(before, start))) return known;
    put.set(key, { ...start });
    // Read back: what was put in is the plain object, and what is watched is its proxy.
    typed.value[key] = { ...start };
    return typed.value[key];
  }
  return { typed, of };
});
