<script setup lang="ts">
/** A number as it is typed, its unit always in sight. Attributes are the field’s own. */
import { useMeter } from '../stores/meter.ts';

defineOptions({ inheritAttrs: false });
const props = defineProps<{ unit: string; wide?: boolean; at?: string }>();
const text = defineModel<string | undefined>();
const meter = useMeter();
/** The meter's next reading goes where the cursor was last. */
function aim(): void {
  meter.target = { at: props.at, what: props.unit === 'Ω' ? 'ohms' : 'dc-volts', put: (reading) => (text.value = reading) };
}
</script>

<template>
  <span class="value" :class="{ wide }">
    <input v-model="text" type="text" autocomplete="off" v-bind="$attrs" @focus="aim" @keydown.f2.prevent="meter.read()" />
    <span class="unit" aria-hidden="true">{{ unit }}</span>
  </span>
</template>

<style scoped>
/* A block, so that its field and its unit stand on one line also where it is no flex item. */
.value {
  display: block;
  position: relative;
  flex: none;
  width: 112px;
}
.value.wide {
  flex: 1 1 150px;
  width: auto;
  min-width: 0;
}
/* What is typed and what stands there before never reach under the unit. */
input {
  width: 100%;
  min-height: 40px;
  padding: 4px 26px 4px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
  color: inherit;
  font: inherit;
  text-overflow: ellipsis;
}
.unit {
  position: absolute;
  top: 0;
  right: 9px;
  line-height: 40px;
  color: var(--ink-soft);
  pointer-events: none;
}
</style>
