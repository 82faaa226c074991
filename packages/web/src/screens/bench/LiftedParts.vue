<script setup lang="ts">
/** Parts taken off one assembly: recorded as they come off, and back on or replaced. Until then the set isn’t closed as repaired. */
import { bodySchemas, type BodyOf, type Lifted } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import { useActWords } from './actWords.ts';
import type { CompiledPack } from '@veglia/core';

const props = defineProps<{ assembly: string; lifted: readonly Lifted[]; compiled: CompiledPack }>();
const emit = defineEmits<{ change: [change: Partial<BodyOf<'set.changed'>>] }>();
const { t } = useI18n();
const { left } = useActWords(useNames(() => props.compiled));
const here = computed(() => props.lifted.filter(({ on }) => on === undefined || on === props.assembly));
const name = ref('');
const isLink = ref(false);
const wrong = ref('');

function record(): void {
  const lifted: Lifted[] = [{ name: name.value.trim(), what: isLink.value ? 'link' : 'part', on: props.assembly }];
  const checked = bodySchemas['set.changed'].safeParse({ kind: 'set.changed', v: 3, lifted });
  wrong.value = checked.success ? '' : t('bench.lifted.wrong', { value: name.value });
  if (!checked.success) return;
  emit('change', { lifted });
  name.value = '';
}
</script>

<template>
  <form class="lifted" data-test="lifted" @submit.prevent="record">
    <label>
      <span class="soft">{{ t('bench.lifted.field') }}</span>
      <input v-model="name" type="text" autocomplete="off" placeholder="C412" data-test="lifted-name" />
    </label>
    <label class="tick"><input v-model="isLink" type="checkbox" data-test="lifted-link" />{{ t('bench.lifted.link') }}</label>
    <button type="submit" class="push">{{ t('bench.lifted.record') }}</button>
    <p v-if="wrong" class="alarm wide" role="alert">{{ wrong }}</p>
    <ul v-if="here.length > 0" class="wide">
      <li v-for="one in here" :key="one.name">
        <span class="alarm">{{ left(`${one.what} ${one.name}`) }}</span>
        <button type="button" class="plain" :data-test="`refit-${one.name}`" @click="$emit('change', { refitted: [one.name] })">
          {{ t('bench.lifted.refit') }}
        </button>
      </li>
    </ul>
  </form>
</template>

<style scoped>
.lifted {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px 12px;
}
.wide {
  flex-basis: 100%;
}
label > span {
  display: block;
  font-size: 15px;
}
input[type='text'] {
  width: 130px;
  min-height: 40px;
  padding: 2px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
.tick {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 40px;
}
li {
  display: flex;
  align-items: center;
  gap: 10px;
}
</style>
