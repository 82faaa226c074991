<script setup lang="ts">
/** Which boards this set has, by the number printed on them; one the shop knows brings its pins along. */
import type { Body, CompiledPack } from '@veglia/core';
import { computed, onMounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import { useBoards } from '../../stores/boards.ts';
import type { JobBoards } from './jobBoards.ts';

const props = defineProps<{ compiled: CompiledPack; layout: string; family: string | undefined; boards: JobBoards }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const store = useBoards();
const names = useNames(
  () => props.compiled,
  () => props.layout,
);
const assembly = ref('');
const number = ref('');
const open = ref(false);
onMounted(() => {
  if (!store.list) void store.load();
});
const assemblies = computed(() =>
  (props.compiled.layouts.get(props.layout)?.assemblies ?? []).filter((id) => !id.startsWith('harness.') && id !== 'outside'),
);
const chosen = computed(() => assembly.value || (assemblies.value.find((id) => id === 'power') ?? assemblies.value[0] ?? ''));
const offered = computed(() =>
  (store.list ?? []).filter((one) => !one.retired && one.layout === props.layout && one.assembly === chosen.value),
);
function record(): void {
  const text = number.value.trim();
  if (text === '' || chosen.value === '') return;
  const known = offered.value.find((one) => one.number.toLowerCase() === text.toLowerCase());
  emit('write', [
    {
      kind: 'board.found',
      v: 1,
      assembly: chosen.value,
      number: known?.number ?? text,
      ...(known ? { board: known.id, version: known.version } : {}),
    },
  ]);
  number.value = '';
  open.value = false;
}
</script>

<template>
  <div class="boards" data-test="job-boards">
    <p class="line">
      <span v-if="boards.found.value.length === 0" class="soft">{{ t('boards.inJob.none') }}</span>
      <span v-for="{ entry, state } in boards.found.value" :key="entry.assembly">
        {{ names.assembly(entry.assembly) }} <strong>{{ entry.number }}</strong>
        <RouterLink v-if="state" class="link" :to="`/boards/${state.board.id}`">{{ t('boards.inJob.open') }}</RouterLink>
        <RouterLink
          v-else
          class="link"
          :to="{ name: 'boards', query: { number: entry.number, assembly: entry.assembly, layout, ...(family ? { family } : {}) } }"
        >
          {{ t('boards.add') }}
        </RouterLink>
      </span>
      <button v-if="!open" type="button" class="plain" data-test="board-found" @click="open = true">{{ t('boards.inJob.record') }}</button>
    </p>
    <div v-if="open" class="line">
      <select v-model="assembly" :aria-label="t('boards.assembly')">
        <option v-for="id in assemblies" :key="id" :value="id === chosen ? assembly : id">{{ names.assembly(id) }}</option>
      </select>
      <input
        v-model="number"
        type="text"
        maxlength="80"
        autocomplete="off"
        list="boards-known"
        :placeholder="t('boards.inJob.typed')"
        :aria-label="t('boards.inJob.typed')"
        data-test="board-number"
        @keydown.enter.prevent="record"
      />
      <datalist id="boards-known"><option v-for="one in offered" :key="one.id" :value="one.number" /></datalist>
      <button type="button" class="push" data-test="record-board" :disabled="number.trim() === ''" @click="record">
        {{ t('boards.inJob.record') }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
.link {
  margin-left: 6px;
  padding: 8px 2px;
}
input,
select {
  min-height: 40px;
  padding: 4px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
</style>
