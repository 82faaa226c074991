<script setup lang="ts">
/** Timers that are over, of whatever set, on whatever screen: told, sounded, and shown in the window's title. */
import { computed, reactive, ref, watch } from 'vue';
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
/** Put away on this screen; the timer itself runs on being over until its own job says it was seen. */
const hidden = reactive(new Set<string>());
const left = computed(() => over.value.filter(({ id }) => !hidden.has(id)).sort((a, b) => b.endsAt - a.endsAt));
/** The last one that ended; put away, it gives way to the one before. */
const shown = computed(() => left.value.slice(0, 1));
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
  <div v-if="shown.length > 0" class="ring" role="alert" data-test="ring">
    <p v-for="one in shown" :key="one.id">
      <RouterLink :to="`/jobs/${one.jobId}`"
        >{{ t('ring.over', { n: one.number, title: one.title, name: one.name }) }}
        <template v-if="left.length > 1">{{ t('ring.more', { n: left.length - 1 }) }}</template></RouterLink
      >
      <button type="button" :aria-label="t('ring.hide')" :title="t('ring.hide')" data-test="ring-hide" @click="hidden.add(one.id)">
        ×
      </button>
    </p>
  </div>
</template>

<style scoped>
/* Over the head of the page and not in it: what somebody is about to press stays where it is, and nothing of the work is covered. */
.ring {
  position: fixed;
  top: 0;
  right: 8px;
  z-index: 40;
  width: min(400px, calc(100vw - 16px));
  max-height: 40dvh;
  overflow-y: auto;
  background: var(--accent);
  color: var(--accent-ink);
  font-weight: 600;
  font-size: 15px;
  line-height: 1.2;
  border-radius: 0 0 var(--radius) var(--radius);
  box-shadow: 0 4px 16px rgb(0 0 0 / 30%);
}
/* Between the ways to other screens and who is writing. */
@media (min-width: 1200px) {
  .ring {
    right: 300px;
    width: 340px;
  }
}
.ring p {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 0 2px 0 14px;
}
.ring a {
  display: inline-flex;
  align-items: center;
  min-height: 40px;
  color: inherit;
}
.ring button {
  flex: none;
  width: 44px;
  min-height: 44px;
  border: 0;
  background: transparent;
  font-size: 24px;
  cursor: pointer;
}
</style>
