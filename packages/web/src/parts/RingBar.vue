<script setup lang="ts">
/** Timers that are over, of whatever set, on whatever screen: told, sounded, and shown in the window's title. */
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { openWaits, liveEntries } from '@veglia/core';
import { useNow } from '../stores/clock.ts';
import { useJob } from '../stores/job.ts';
import { useShelf } from '../stores/shelf.ts';
import { ring } from '../stores/sound.ts';

const { t } = useI18n();
const now = useNow();
const shelf = useShelf();
const open = useJob();
/** The job on the screen knows its own timers before any card does. */
const timers = computed(() => {
  const current = open.job;
  const others = shelf.timers.filter((one) => one.jobId !== current?.id);
  if (!current) return others;
  const title = `${current.plate.maker} ${current.plate.model}`;
  return [...others, ...openWaits(liveEntries(open.entries)).map((one) => ({ ...one, jobId: current.id, number: current.number, title }))];
});
const over = computed(() => timers.value.filter(({ endsAt }) => endsAt <= now.value));
const rung = new Set<string>();
const plainTitle = ref(document.title);

watch(
  () => over.value.map(({ id }) => id).join(' '),
  () => {
    document.title = over.value.length > 0 ? t('ring.title', { n: over.value.length, name: over.value[0]?.name ?? '' }) : plainTitle.value;
    const fresh = over.value.filter(({ id }) => !rung.has(id));
    for (const { id } of fresh) rung.add(id);
    if (fresh.length > 0) ring();
  },
);
</script>

<template>
  <div v-if="over.length > 0" class="ring" role="alert" data-test="ring">
    <p v-for="one in over" :key="one.id">
      <RouterLink :to="`/jobs/${one.jobId}`">{{ t('ring.over', { n: one.number, title: one.title, name: one.name }) }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.ring {
  padding: 6px 20px;
  background: var(--accent);
  color: var(--accent-ink);
  font-weight: 600;
}
.ring a {
  display: inline-flex;
  align-items: center;
  min-height: 40px;
  color: inherit;
}
</style>
