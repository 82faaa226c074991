/** What stands in the instruments' fields, as typed: by job, or for none. Going elsewhere and back loses nothing; a reload does. */
import { defineStore } from 'pinia';
import { reactive } from 'vue';

export const useTypedInstruments = defineStore('typed-instruments', () => {
  const typed = reactive<Record<string, Record<string, string>>>({});
  /** Fields of an instrument in a job (or in none: the empty id); `first` is put in where nothing was typed yet. */
  function of(job: string, instrument: string, first: () => Readonly<Record<string, string>> = () => ({})): Record<string, string> {
    const key = `${job} ${instrument}`;
    const known = typed[key];
    if (known) return known;
    // Read back: what was put in is the plain object, and what is watched is its proxy.
    typed[key] = { ...first() };
    return typed[key];
  }
  return { typed, of };
});
