<script setup lang="ts">
/** The layout as it turns out once the back is off. Told anew at any time; every entry so far is kept and read by the new one. */
import type { Body, CaseFold, CompiledPack } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent } from '../../names.ts';
import { textOf } from '../../stores/packs.ts';

const props = defineProps<{ fold: CaseFold; compiled: CompiledPack; family: string | undefined }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const open = ref(false);
const doubt = computed(() => props.fold.doubts.find(({ code }) => code === 'layout-not-certain'));
const possible = computed(() => {
  const own = props.compiled.families.get(props.family ?? '')?.layouts;
  return props.compiled.pack.layouts.filter(({ id }) => !own || own.includes(id));
});
function found(layout: string): void {
  open.value = false;
  emit('write', [{ kind: 'layout.found', v: 2, layout }]);
}
</script>

<template>
  <div class="layout" data-test="layout">
    <p class="one">
      <strong>{{ textOf(compiled.layouts.get(fold.set.layout ?? '')?.name) }}</strong>
      <span v-if="doubt" class="alarm"> {{ t('bench.layout.notSure', { probability: percent(doubt.value ?? 0) }) }}</span>
      <button v-if="!fold.closed" type="button" class="plain" :aria-expanded="open" @click="open = !open">
        {{ t('bench.layout.tell') }}
      </button>
    </p>
    <div v-if="open" class="choices" role="group" :aria-label="t('bench.layout.tell')">
      <button v-for="one in possible" :key="one.id" type="button" class="push" :data-layout="one.id" @click="found(one.id)">
        {{ textOf(one.name) }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.one {
  display: flex;
  align-items: center;
  gap: 8px;
}
.one strong {
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.one .plain {
  flex: none;
  padding: 0;
}
.layout {
  padding: 0 4px;
  font-size: 15px;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-bottom: 6px;
}
</style>
