<script setup lang="ts">
/**
 * Verdicts told by shape first, so that they read without colour: ruled out is an empty ring with a bar, suspect a ring
 * filled like a tank, likely-not-split a tank cut in two, proven a full square.
 */
import { computed } from 'vue';

const props = defineProps<{ verdict: string; probability: number }>();
const level = computed(() => 3 + 18 * (1 - Math.min(1, Math.max(0, props.probability))));
</script>

<template>
  <svg class="mark" viewBox="0 0 24 24" width="24" height="24" aria-hidden="true">
    <template v-if="verdict === 'cleared'">
      <circle cx="12" cy="12" r="9" class="line" stroke-dasharray="3 3" />
      <path d="M6 12h12" class="line" />
    </template>
    <template v-else-if="verdict === 'proven'">
      <rect x="2" y="2" width="20" height="20" class="full" />
      <rect x="5.5" y="5.5" width="13" height="13" class="inner" />
    </template>
    <template v-else>
      <clipPath :id="`tank-${verdict}`"><circle cx="12" cy="12" r="9" /></clipPath>
      <rect x="3" :y="level" width="18" height="24" class="full" :clip-path="`url(#tank-${verdict})`" />
      <circle cx="12" cy="12" r="9" class="line" />
      <path v-if="verdict === 'likely-not-split'" d="M17 2 7 22" class="gap" />
    </template>
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.full {
  fill: var(--accent);
}
.inner {
  fill: none;
  stroke: var(--accent-ink);
  stroke-width: 2;
}
.gap {
  stroke: var(--surface);
  stroke-width: 5;
}
</style>
