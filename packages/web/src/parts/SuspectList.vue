<script setup lang="ts">
import { notInBook, type AssemblyView, type BodyOf, type CompiledPack } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../names.ts';
import VerdictMark from './VerdictMark.vue';

type Theory = Pick<BodyOf<'theory.told'>, 'source' | 'text'> & { assembly?: string };
const props = defineProps<{
  assemblies: readonly AssemblyView[];
  compiled: CompiledPack;
  entryWords?: (id: string) => string;
  /** Brought along: shown beside what they blame, and moving no probabilities. */
  theories?: readonly Theory[];
}>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const open = ref('');
/** Those that are still in play first; the ruled-out ones behind, by probabilities. */
const ordered = computed(() => [...props.assemblies].sort((a, b) => Number(a.verdict === 'cleared') - Number(b.verdict === 'cleared')));
const counted = ({ jobs, told }: { jobs: number; told: number }): string =>
  told > 0 ? t('bench.counted.told', { jobs, told }) : t('bench.counted.n', { jobs });
const theoriesOn = (id: string): Theory[] => (props.theories ?? []).filter((one) => one.assembly === id && one.text.trim() !== '');
const theoriesOnNone = computed(() => (props.theories ?? []).filter((one) => !one.assembly && one.text.trim() !== ''));
const heard = ({ source, text }: Theory): string => t('bench.theory', { source: t(`theorySource.${source}`), text });
const against = ({ ruledOutBy, because }: AssemblyView): string => {
  if (ruledOutBy === undefined) return t('core.verdict.cleared');
  const seq = because.find(({ entry }) => entry === ruledOutBy)?.seq ?? '';
  return t('bench.ruledOutBy', { what: props.entryWords?.(ruledOutBy) ?? seq });
};
const factor = (weight: number): string => {
  const value = Math.exp(weight);
  return value >= 10 ? value.toFixed(0) : value >= 0.095 ? value.toFixed(1) : value < 0.0005 ? '0.000…' : value.toPrecision(1);
};
</script>

<template>
  <ul class="suspects" data-test="suspects">
    <li v-for="one in ordered" :key="one.id" :class="one.verdict" :data-assembly="one.id" :data-verdict="one.verdict">
      <button type="button" class="row" :aria-expanded="open === one.id" @click="open = open === one.id ? '' : one.id">
        <VerdictMark :verdict="one.verdict" :probability="one.probability" />
        <span class="name"
          >{{ names.assembly(one.id) }}
          <span v-if="one.n && one.verdict !== 'cleared' && one.id !== notInBook" class="n">{{ counted(one.n) }}</span></span
        >
        <span class="verdict">{{ one.verdict === 'cleared' ? against(one) : t(`core.verdict.${one.verdict}`) }}</span>
        <span v-if="one.verdict !== 'cleared'" class="figure probability">{{ percent(one.probability) }}</span>
      </button>
      <p v-for="(theory, index) in theoriesOn(one.id)" :key="index" class="soft theory" data-test="theory">{{ heard(theory) }}</p>
      <div v-if="one.verdict !== 'cleared'" class="bar" aria-hidden="true"><span :style="{ width: `${one.probability * 100}%` }" /></div>
      <div v-if="open === one.id" class="because">
        <p v-if="one.verdict === 'likely-not-split'" class="alarm">
          {{ t('bench.missing') }}:
          {{ (one.missing ?? []).map((step) => names.test(step.test, step.of)).join(', ') || t('bench.missingNone') }}
        </p>
        <p v-if="one.because.length === 0" class="soft">{{ t('bench.noEvidence') }}</p>
        <template v-else>
          <p class="soft">{{ t('bench.because') }}</p>
          <ul>
            <li v-for="because in one.because.slice(0, 6)" :key="because.entry" class="reason">
              <span>{{ entryWords?.(because.entry) ?? because.seq }}</span>
              <span class="figure">{{ t('bench.weight', { factor: factor(because.weight) }) }}</span>
            </li>
          </ul>
        </template>
      </div>
    </li>
  </ul>
  <p v-for="(theory, index) in theoriesOnNone" :key="index" class="soft origin">{{ heard(theory) }}</p>
  <p class="soft origin">{{ assemblies.some((one) => one.n) ? t('bench.counted.jobs') : t('bench.counted.none') }}</p>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 40px;
  border: 0;
  background: none;
  padding: 2px 4px;
  text-align: left;
  cursor: pointer;
}
.name {
  flex: 1;
  font-weight: 600;
}
.n {
  font-weight: 400;
  font-size: 14px;
  color: var(--ink-soft);
  white-space: nowrap;
}
.origin {
  margin-top: 6px;
  font-size: 14px;
}
.verdict {
  color: var(--ink-soft);
  font-size: 14px;
}
.probability {
  min-width: 62px;
  text-align: right;
}
.bar {
  height: 4px;
  background: var(--sunk);
  border-radius: 2px;
  margin: 0 4px;
}
.bar span {
  display: block;
  height: 100%;
  background: var(--accent);
  border-radius: 2px;
}
.cleared .row {
  min-height: 40px;
}
.cleared .verdict {
  flex: 2;
  text-align: right;
}
.cleared .name {
  font-weight: 400;
  color: var(--ink-soft);
}
.theory {
  padding: 0 8px 4px 38px;
  font-size: 14px;
}
.because {
  padding: 6px 8px 10px 38px;
  font-size: 15px;
}
.reason {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
</style>
