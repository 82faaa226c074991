<script setup lang="ts">
/** The pack or the counts have moved on since the job was opened: what would change, and a button to go with them. */
import { foldCase, type Body, type CaseFold, type CaseInput } from '@veglia/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { NotReached } from '../../api.ts';
import { percent, useNames } from '../../names.ts';
import { usePacks } from '../../stores/packs.ts';

const props = defineProps<{ input: CaseInput; fold: CaseFold }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const packs = usePacks();
const names = useNames(() => packs.current);
const number = ref<number>();
const then = shallowRef<CaseFold>();

onMounted(async () => {
  try {
    await packs.loadCurrent();
    number.value = await packs.newestCounts();
  } catch (error) {
    // Without a server there is nothing newer to offer.
    if (!(error instanceof NotReached)) throw error;
  }
});
const newer = computed(
  () => number.value !== undefined && (packs.current?.hash !== props.fold.pack || number.value !== (props.fold.snapshot ?? 0)),
);
async function look(): Promise<void> {
  if (!packs.current || number.value === undefined) return;
  const { set, settings, entries } = props.input;
  const counts = await packs.countsAt(number.value);
  then.value = foldCase({ set, settings, entries, ...(counts ? { counts } : {}) }, packs.current, 'cost', 'at-once');
}
/** Assemblies that move by a whole percent or more, those that move most first. */
const moves = computed(() =>
  (then.value?.assemblies ?? [])
    .map(({ id, probability }) => ({ id, to: probability, from: props.fold.assemblies.find((one) => one.id === id)?.probability ?? 0 }))
    .filter(({ from, to }) => Math.abs(to - from) >= 0.01)
    .sort((a, b) => Math.abs(b.to - b.from) - Math.abs(a.to - a.from)),
);
function take(): void {
  if (!packs.current || number.value === undefined) return;
  emit('write', [{ kind: 'pack.pinned', v: 2, hash: packs.current.hash, snapshot: number.value }]);
  then.value = undefined;
}
</script>

<template>
  <section v-if="newer" class="sheet" data-test="newer">
    <p>{{ t('bench.newer.line') }}</p>
    <button v-if="!then" type="button" class="plain" @click="look">{{ t('bench.newer.look') }}</button>
    <template v-else>
      <p v-if="moves.length === 0" class="soft">{{ t('bench.newer.nothing') }}</p>
      <ul v-else>
        <li v-for="one in moves.slice(0, 6)" :key="one.id">
          {{ t('bench.newer.moves', { assembly: names.assembly(one.id), from: percent(one.from), to: percent(one.to) }) }}
        </li>
      </ul>
      <button type="button" class="push" data-test="move-pins" @click="take">{{ t('bench.newer.take') }}</button>
    </template>
  </section>
</template>
