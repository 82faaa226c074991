/** Who writes, and how it looks. Kept in the browser; accounts come later. */
import type { Person } from '@veglia/contract';
import { defineStore } from 'pinia';
import { computed, ref, watchEffect } from 'vue';
import { api } from '../api.ts';

export const useSession = defineStore('session', () => {
  const people = ref<Person[]>([]);
  const personId = ref(localStorage.getItem('veglia.person') ?? '');
  const dark = ref(localStorage.getItem('veglia.dark') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'yes' : 'no'));
  const person = computed(() => people.value.find((one) => one.id === personId.value) ?? people.value[0]);

  watchEffect(() => {
    document.documentElement.classList.toggle('dark', dark.value === 'yes');
    localStorage.setItem('veglia.dark', dark.value);
  });

  async function load(): Promise<void> {
    const reply = await api.people();
    if (reply.ok) people.value = reply.value;
  }

  function choose(id: string): void {
    personId.value = id;
    localStorage.setItem('veglia.person', id);
  }

  return { people, person, dark, load, choose };
});
