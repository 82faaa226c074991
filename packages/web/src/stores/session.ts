/** Who writes, and how it looks. Kept in the browser; accounts come later. */
import type { Person } from '@veglia/contract';
import { useLocalStorage, usePreferredDark } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, watchEffect } from 'vue';
import { api } from '../api.ts';

export const useSession = defineStore('session', () => {
  const people = ref<Person[]>([]);
  // Two tabs may be two people's: who writes in one stays as it is when another changes.
  const personId = useLocalStorage('veglia.person', '', { listenToStorageChanges: false });
  const dark = useLocalStorage('veglia.dark', usePreferredDark().value ? 'yes' : 'no');
  const person = computed(() => people.value.find((one) => one.id === personId.value) ?? people.value[0]);

  watchEffect(() => document.documentElement.classList.toggle('dark', dark.value === 'yes'));

  async function load(): Promise<void> {
    const reply = await api.people();
    if (reply.ok) people.value = reply.value;
  }

  function choose(id: string): void {
    personId.value = id;
  }

  return { people, person, dark, load, choose };
});
