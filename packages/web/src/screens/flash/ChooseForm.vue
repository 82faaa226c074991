<script setup lang="ts">
/** What goes in: the own dump, an image of the library, or a file; and whether it fits. */
import type { Image, ImageFacts } from '@veglia/contract';
import { formatBytes, imageFits, imageSources, keptContent, type AreaState, type FlashDid } from '@veglia/core';
import { computed, onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import { api, NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import DumpField from './DumpField.vue';
import { shortHash } from './titles.ts';

const props = defineProps<{ area: AreaState; facts: ImageFacts; many: boolean }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t, d } = useI18n();
const images = ref<readonly Image[]>([]);
const chosen = ref('');
const fit = ref<(typeof imageFits)[number]>('unsure');
const wrong = ref('');
const fresh = reactive<{ name: string; board: string; panel: string; source: (typeof imageSources)[number] }>({
  name: '',
  board: '',
  panel: '',
  source: 'dealer',
});
/** By content: the same bytes read in another job are this set’s own all the same. */
const own = computed(() => keptContent(props.area)?.sha256);
/** Reads that differ from it hold the chip’s errors: never offered. */
const unsteady = computed(() => new Set(props.area.reads.flatMap(({ sha256 }) => (sha256 === own.value ? [] : (sha256 ?? [])))));

async function load(): Promise<void> {
  try {
    const reply = await api.images();
    if (reply.ok) images.value = reply.value.filter(({ facts }) => facts.memory === props.facts.memory && facts.area === props.area.area);
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('flash.wrong.notReached');
  }
}
onMounted(load);
const lineOf = (image: Image): string =>
  own.value === image.sha256
    ? `${t('flash.ownDump', { at: d(image.at, 'minute') })}, ${shortHash(image.sha256)}`
    : [image.facts.name, image.facts.board, image.facts.panel, formatBytes(image.size), shortHash(image.sha256)].filter(Boolean).join(', ');
/** The same content twice is one choice. */
const options = computed(() => {
  const seen = new Set<string>();
  return images.value
    .filter(({ sha256 }) => !unsteady.value.has(sha256) && !seen.has(sha256) && seen.add(sha256))
    .map((image) => ({ value: image.id, label: lineOf(image) }));
});
const factsOfFile = computed((): ImageFacts => ({
  ...props.facts,
  name: fresh.name.trim(),
  source: fresh.source,
  ...(fresh.board.trim() === '' ? {} : { board: fresh.board.trim() }),
  ...(fresh.panel.trim() === '' ? {} : { panel: fresh.panel.trim() }),
}));
function stored({ image }: { image: Image }): void {
  images.value = [image, ...images.value];
  chosen.value = image.id;
}
function record(): void {
  const image = images.value.find(({ id }) => id === chosen.value);
  wrong.value = image ? '' : t('flash.wrong.image');
  if (!image) return;
  emit('did', {
    step: 'chosen',
    area: props.area.area,
    sha256: image.sha256,
    bytes: image.size,
    image: image.id,
    source: own.value === image.sha256 ? 'own-set' : image.facts.source === 'own-set' ? 'own-library' : image.facts.source,
    fit: fit.value,
  });
}
</script>

<template>
  <div class="choose">
    <form class="fields" @submit.prevent="record">
      <ChoiceField
        id="flash-image"
        v-model="chosen"
        class="wide"
        searched
        :label="t('flash.field.library')"
        :options="options"
        :error="wrong || undefined"
      />
      <ChoiceField
        id="flash-fit"
        v-model="fit"
        :label="t('flash.field.fit')"
        :options="imageFits.map((value) => ({ value, label: t(`flash.fit.${value}`) }))"
      />
      <button type="submit" class="push full bottom" data-test="record-step">
        <KeyCap :label="cap('confirm')" />{{ t('flash.record') }}
      </button>
    </form>
    <details>
      <summary>{{ t('flash.field.imageFile') }}</summary>
      <div class="fields">
        <TextField id="flash-image-name" v-model="fresh.name" :label="t('flash.field.imageName')" :bounds="{ longest: 120 }" />
        <ChoiceField
          id="flash-source"
          v-model="fresh.source"
          :label="t('flash.field.source')"
          :options="imageSources.filter((one) => one !== 'own-set').map((value) => ({ value, label: t(`flash.source.${value}`) }))"
        />
        <TextField id="flash-board" v-model="fresh.board" :label="t('flash.field.board')" :bounds="{ longest: 120 }" />
        <TextField id="flash-panel" v-model="fresh.panel" :label="t('flash.field.panel')" :bounds="{ longest: 120 }" />
      </div>
      <DumpField :label="t('flash.field.chooseImage')" :facts="factsOfFile" @stored="stored" />
    </details>
    <button v-if="many" type="button" class="plain" @click="emit('did', { step: 'left-alone', area: area.area })">
      {{ t('flash.leaveAlone') }}
    </button>
  </div>
</template>

<style scoped>
.choose {
  display: grid;
  gap: 10px;
}
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
}
</style>
