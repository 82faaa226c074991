<script setup lang="ts">
/** Parts of this job that are not fitted yet: what it waits for, or what lies here to be fitted. */
import { partsOf, type Entry } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';

const props = defineProps<{ live: readonly Entry[]; jobId: string }>();
const { t, d } = useI18n();
const open = computed(() => partsOf(props.live).filter(({ state }) => state === 'to-order' || state === 'on-order' || state === 'here'));
const here = computed(() => open.value.length > 0 && open.value.every(({ state }) => state === 'here'));
const what = computed(() =>
  open.value
    .map(({ number, state, expectedOn }) =>
      [
        number,
        state === 'on-order' && expectedOn
          ? t('parts.expected', { day: d(new Date(`${expectedOn}T12:00:00`), 'weekday') })
          : t(`parts.state.${state}`).toLowerCase(),
      ].join(', '),
    )
    .join('; '),
);
</script>

<template>
  <RouterLink v-if="open.length > 0" :to="`/jobs/${jobId}/parts`" class="parts" data-test="parts-line">
    {{ t(here ? 'parts.line.here' : 'parts.line.waits', { what }) }}
  </RouterLink>
</template>

<style scoped>
.parts {
  display: block;
  padding: 4px 10px;
  border-left: 6px solid var(--accent);
  overflow-wrap: anywhere;
}
</style>
