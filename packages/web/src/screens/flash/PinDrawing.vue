<script setup lang="ts">
/** The contacts of the chip: its eight pins as seen from above, or the points to wire, each with what it does. */
import { contactsOf, type FlashSession } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';

const props = defineProps<{ memory: FlashSession['opened']['memory'] }>();
const { t } = useI18n();
const drawn = computed(() => contactsOf(props.memory));
/** Down the left side, up the right one. */
const places = computed(() =>
  drawn.value.contacts.map((pin, index) => ({ ...pin, number: index + 1, left: index < 4, row: index < 4 ? index : 7 - index })),
);
const label = computed(() =>
  drawn.value.contacts.map(({ name }, index) => (drawn.value.numbered ? `${index + 1} ${name}` : name)).join(', '),
);
</script>

<template>
  <figure class="pins" data-test="pins">
    <svg v-if="drawn.numbered" viewBox="0 0 360 190" role="img" :aria-label="label">
      <rect x="120" y="12" width="120" height="166" rx="6" class="body" />
      <circle cx="154" cy="35" r="6" class="mark" />
      <g v-for="pin in places" :key="pin.number" :transform="`translate(${pin.left ? 0 : 240} ${22 + pin.row * 40})`">
        <rect :x="pin.left ? 96 : 0" y="6" width="24" height="14" class="leg" />
        <text :x="pin.left ? 88 : 32" y="18" :text-anchor="pin.left ? 'end' : 'start'" class="name">{{ pin.name }}</text>
        <text :x="pin.left ? 128 : -8" y="18" :text-anchor="pin.left ? 'start' : 'end'" class="number">{{ pin.number }}</text>
      </g>
    </svg>
    <ol v-else>
      <li v-for="one in drawn.contacts" :key="one.name">
        <strong class="reading">{{ one.name }}</strong> {{ t(`flash.pin.${one.does}`) }}
      </li>
    </ol>
    <figcaption class="soft">
      {{ t(drawn.numbered ? 'flash.pin.above' : 'flash.pin.inPlace') }}
      <template v-for="one in drawn.contacts" :key="one.name">
        <template v-if="one.wants">{{ ' ' }}{{ t(`flash.pin.wants-${one.wants}`, { name: one.name }) }}</template>
      </template>
    </figcaption>
  </figure>
</template>

<style scoped>
.pins {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin: 0;
}
svg {
  width: 300px;
  max-width: 100%;
}
figcaption {
  flex: 1 1 200px;
}
.body {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
.mark {
  fill: var(--ink);
}
.leg {
  fill: var(--ink-soft);
}
.name {
  font-size: 18px;
  font-weight: 600;
  fill: var(--ink);
}
.number {
  font-size: 15px;
  fill: var(--ink);
}
ol {
  margin: 0;
  padding-left: 24px;
}
</style>
