<script setup lang="ts">
/** Several reads of a failing chip made one: what was unsteady, how sure it is, and how many reads are still needed. */
import type { Combined, ImageFacts } from '@veglia/contract';
import type { AreaState, FlashDid } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { percent } from '../../names.ts';
import { useSession } from '../../stores/session.ts';

const props = defineProps<{ area: AreaState; facts: ImageFacts }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const session = useSession();
const reads = computed(() => props.area.reads.flatMap(({ image, extent }) => (image !== undefined && extent === 'whole' ? [image] : [])));
const made = ref<Combined>();
const busy = ref(false);
const wrong = ref('');

async function combine(): Promise<void> {
  const by = session.person?.id;
  if (by === undefined) return;
  busy.value = true;
  wrong.value = '';
  try {
    const reply = await api.combineImages(uuidv7(), { by, reads: reads.value, facts: props.facts });
    if (reply.ok) made.value = reply.value;
    else wrong.value = reply.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('flash.wrong.notReached');
  } finally {
    busy.value = false;
  }
}
function use(): void {
  if (!made.value) return;
  const { image, unsteadyBytes, reads: n } = made.value;
  emit('did', {
    step: 'rebuilt',
    area: props.area.area,
    sha256: image.sha256,
    bytes: image.size,
    image: image.id,
    reads: n,
    doubtfulBytes: unsteadyBytes,
  });
}
</script>

<template>
  <div class="combine" data-test="combine">
    <button
      type="button"
      class="push"
      :class="{ full: !made }"
      :disabled="busy || reads.length < 3"
      data-test="combine-reads"
      @click="combine"
    >
      {{ t('flash.combine.make', { n: reads.length }) }}
    </button>
    <template v-if="made">
      <p data-test="combined">
        {{ t('flash.combine.found', { bytes: made.unsteadyBytes, ones: made.ones, zeros: made.zeros, sure: percent(made.certainty) }) }}
      </p>
      <p v-if="made.readsFor99 === null" class="alarm">{{ t('flash.combine.never') }}</p>
      <p v-else-if="made.readsFor99 > made.reads">{{ t('flash.combine.needed', { n: made.readsFor99 - made.reads }) }}</p>
      <button type="button" class="push full" data-test="use-combined" @click="use">{{ t('flash.combine.use') }}</button>
    </template>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.combine {
  display: grid;
  gap: 8px;
  justify-items: start;
}
</style>
