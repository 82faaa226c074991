<script setup lang="ts">
/** After check-in: where to go with the set. */
import type { Job } from '@veglia/contract';
import { useI18n } from 'vue-i18n';

defineProps<{
  /** Undefined where the server is away and the set is kept in this browser. */
  job: Job | undefined;
  what: string;
}>();
defineEmits<{ another: [] }>();
const { t } = useI18n();
</script>

<template>
  <section class="sheet saved" role="status">
    <h1 v-if="job" data-test="saved">{{ t('counter.saved', { n: job.number }) }}</h1>
    <h1 v-else data-test="kept-here">{{ t('counter.keptHere') }}</h1>
    <p v-if="what" class="soft">{{ what }}</p>
    <template v-if="job">
      <RouterLink class="push full" :to="`/jobs/${job.id}`" data-test="to-bench">{{ t('counter.toBench') }}</RouterLink>
      <p class="inline">
        <a class="push" :href="`/api/jobs/${job.id}/label.pdf`" target="_blank">{{ t('bench.label') }}</a>
        <a class="push" :href="`/api/jobs/${job.id}/receipt.pdf`" target="_blank">{{ t('bench.receipt') }}</a>
        <RouterLink class="push" :to="`/jobs/${job.id}/call`">{{ t('bench.call') }}</RouterLink>
        <RouterLink class="push" :to="`/jobs/${job.id}/close`">{{ t('counter.toClose') }}</RouterLink>
      </p>
    </template>
    <p v-else>{{ t('counter.keptHereHelp') }}</p>
    <button type="button" class="push" data-test="another" @click="$emit('another')">{{ t('counter.another') }}</button>
  </section>
</template>

<style scoped>
.saved {
  display: grid;
  gap: 12px;
}
</style>
