<script setup lang="ts">
/** The layout before the back is off: what can be seen from outside, each answer optional. */
import { layoutProbabilitiesByLooks, type CompiledPack } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent } from '../../names.ts';
import { textOf } from '../../stores/packs.ts';

const props = defineProps<{ compiled: CompiledPack; possible: readonly string[] | undefined }>();
const looks = defineModel<Record<string, string>>({ required: true });
const { t } = useI18n();
const probabilities = computed(() =>
  Object.entries(layoutProbabilitiesByLooks(props.compiled.pack, looks.value, props.possible)).sort((a, b) => b[1] - a[1]),
);
function choose(look: string, answer: string): void {
  const others = Object.fromEntries(Object.entries(looks.value).filter(([id]) => id !== look));
  looks.value = looks.value[look] === answer ? others : { ...others, [look]: answer };
}
</script>

<template>
  <details class="looks" data-test="looks">
    <summary>
      {{ t('counter.looks.title') }}
      <span class="soft">{{
        probabilities
          .slice(0, 3)
          .map(([id, p]) => `${textOf(compiled.layouts.get(id)?.name)} ${percent(p)}`)
          .join(' · ')
      }}</span>
    </summary>
    <div v-for="look in compiled.pack.looks" :key="look.id" class="look" role="group" :aria-label="textOf(look.name)">
      <span>{{ textOf(look.name) }}</span>
      <button
        v-for="answer in look.answers"
        :key="answer.id"
        type="button"
        class="choice"
        :aria-pressed="looks[look.id] === answer.id"
        @click="choose(look.id, answer.id)"
      >
        {{ textOf(answer.name) }}
      </button>
    </div>
  </details>
</template>

<style scoped>
.looks {
  grid-column: 1 / -1;
}
summary {
  min-height: 40px;
  padding-top: 8px;
  cursor: pointer;
  color: var(--accent);
  font-weight: 600;
}
summary .soft {
  font-weight: 400;
}
.look {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  padding: 4px 0;
}
.look > span {
  flex: 1 0 100%;
  font-size: 15px;
}
.choice {
  min-height: 40px;
  padding: 2px 12px;
  border: 1.5px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
  cursor: pointer;
}
.choice[aria-pressed='true'] {
  border-color: var(--accent);
  border-left-width: 8px;
  background: var(--accent-wash);
  font-weight: 600;
}
</style>
