<script setup lang="ts">
/** What goes in: the own dump, an image of the library, or a file; and whether it fits. */
import { fitSentence, flashWords, type Image, type ImageFacts } from '@veglia/contract';
import {
  formatBytes,
  hitsAndMisses,
  imageSources,
  judgeFit,
  keptContent,
  ownRefused,
  sizeOf,
  targetOf,
  type AreaState,
  type Fit,
  type FlashDid,
  type FlashSession,
  type FlashTrial,
} from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, onMounted, reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import { api, NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';
import DumpField from './DumpField.vue';
import { resolutionOf, shortHash } from './titles.ts';

const props = defineProps<{ session: FlashSession; area: AreaState; facts: ImageFacts; many: boolean; trials: readonly FlashTrial[] }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t, d } = useI18n();
const images = ref<readonly Image[]>([]);
const chosen = ref('');
const wrong = ref('');
const people = useSession();
const signs = { against: '✕', unsure: '?', for: '✓' } as const;
const texts = ['board', 'revision', 'panel', 'region', 'companion'] as const;
const fresh = reactive<Record<(typeof texts)[number] | 'name' | 'resolution', string> & { source: (typeof imageSources)[number] }>({
  name: '',
  source: 'dealer',
  board: '',
  revision: '',
  panel: '',
  resolution: '',
  region: '',
  companion: '',
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
const target = computed(() => targetOf(props.session));
const sourceOf = (image: Image): (typeof imageSources)[number] =>
  own.value === image.sha256 ? 'own-set' : image.facts.source === 'own-set' ? 'own-library' : image.facts.source;
function fitOf(image: Image): Fit {
  const { memory, companions = [] } = props.session.opened;
  const aim = {
    memory,
    area: props.area.area,
    bytes: sizeOf(props.session, props.area.area) ?? keptContent(props.area)?.bytes,
    ...target.value,
    companions,
  };
  return judgeFit(aim, {
    ...image.facts,
    bytes: image.size,
    source: sourceOf(image),
    doubtfulBytes: image.facts.reconstructed?.doubtfulBytes,
    own: own.value === image.sha256,
    ownFrom: image.facts.ownFrom,
    ownHere: own.value,
    ...hitsAndMisses(image.sha256, target.value ?? {}, props.trials),
  });
}
const lineOf = (image: Image): string =>
  own.value === image.sha256
    ? `${t('flash.ownDump', { at: d(image.at, 'minute') })}, ${shortHash(image.sha256)}`
    : [image.facts.name, image.facts.board, image.facts.panel, formatBytes(image.size), shortHash(image.sha256)].filter(Boolean).join(', ');
const order = { fits: 0, unsure: 1, 'does-not-fit': 2 } as const;
/** What fits first; the same content twice is one choice. */
const candidates = computed(() => {
  const seen = new Set<string>();
  return images.value
    .filter(({ sha256 }) => !unsteady.value.has(sha256) && !seen.has(sha256) && seen.add(sha256))
    .map((image) => ({ image, fit: fitOf(image) }))
    .toSorted((a, b) => order[a.fit.fit] - order[b.fit.fit]);
});
const options = computed(() =>
  candidates.value.map(({ image, fit }) => ({ value: image.id, label: `${t(`flash.fit.${fit.fit}`)}: ${lineOf(image)}` })),
);
const picked = computed(() => candidates.value.find(({ image }) => image.id === chosen.value));
/** Onto a new chip goes the set’s own content, where there is one; else nothing is picked for anybody. */
watch(candidates, (all) => {
  const kept = all.find(({ image }) => image.sha256 === own.value);
  if (chosen.value === '' && props.session.opened.plan === 'onto-new' && kept) chosen.value = kept.image.id;
});
/** Only what was said of the file: it is no dump of this set. */
const factsOfFile = computed((): ImageFacts => {
  const resolution = resolutionOf(fresh.resolution);
  return {
    name: fresh.name.trim(),
    memory: props.facts.memory,
    area: props.facts.area,
    source: fresh.source,
    ...Object.fromEntries(texts.flatMap((one) => (fresh[one].trim() === '' ? [] : [[one, fresh[one].trim()]]))),
    ...(resolution ? { resolution } : {}),
  };
});
function stored({ image }: { image: Image }): void {
  images.value = [image, ...images.value];
  chosen.value = image.id;
}
/** The stored dump of this set, for what is its own in it. */
const ownDump = computed(() => images.value.find(({ sha256 }) => sha256 === own.value));
const asOwn = (image: Image) => ({ size: image.size, ...image.facts });
/** What becomes of the set's own content with an image that is not its own. */
const ownLost = computed(() => {
  const image = picked.value?.image;
  if (!image || !ownDump.value || image.sha256 === own.value || image.facts.ownFrom === own.value) return undefined;
  return { refused: ownRefused(asOwn(image), asOwn(ownDump.value)), places: ownDump.value.facts.own ?? [] };
});
const putIn = ref(false);
watch(chosen, () => (putIn.value = false));
const kinds = (places: readonly { readonly kind: string }[]): string =>
  [...new Set(places.map(({ kind }) => t(`stock.own.kind.${kind}`)))].join(', ');

/** The image with this set's own content in it; undefined where it came to nothing, and why is on the screen. */
async function withOwn(image: Image): Promise<Image | undefined> {
  const by = people.person?.id;
  if (!putIn.value || ownLost.value?.refused !== undefined || !ownDump.value || by === undefined) return image;
  try {
    const reply = await api.putOwn(uuidv7(), { by, into: image.id, own: ownDump.value.id });
    if (reply.ok) return reply.value;
    wrong.value = reply.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('flash.wrong.notReached');
  }
  return undefined;
}
const recording = ref(false);
async function record(): Promise<void> {
  wrong.value = picked.value ? '' : t('flash.wrong.image');
  if (!picked.value || recording.value) return;
  const { fit } = picked.value;
  recording.value = true;
  const image = await withOwn(picked.value.image);
  recording.value = false;
  if (!image) return;
  emit('did', {
    step: 'chosen',
    area: props.area.area,
    sha256: image.sha256,
    bytes: image.size,
    image: image.id,
    source: sourceOf(image),
    fit: fit.fit,
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
      <div v-if="picked" class="wide" data-test="fit" :data-fit="picked.fit.fit">
        <strong :class="{ alarm: picked.fit.fit === 'does-not-fit' }">{{ t(`flash.fit.${picked.fit.fit}`) }}</strong>
        <ul>
          <li v-for="one in picked.fit.points" :key="one.code" :data-point="one.code" :class="{ alarm: one.speaks === 'against' }">
            <span aria-hidden="true">{{ signs[one.speaks] }}</span> {{ fitSentence(flashWords.en, one) }}
          </li>
        </ul>
      </div>
      <div v-if="ownLost" class="wide" data-test="own-lost" :data-refused="ownLost.refused">
        <p class="alarm">
          {{ t(ownLost.refused === 'nothing-marked' ? 'flash.own.notMarked' : 'flash.own.lost', { what: kinds(ownLost.places) }) }}
        </p>
        <el-checkbox v-if="ownLost.refused === undefined" v-model="putIn" data-test="put-own">
          {{ t('flash.own.putIn', ownLost.places.length) }}
        </el-checkbox>
        <p v-else-if="ownLost.refused !== 'nothing-marked'">{{ t(`flash.own.refused.${ownLost.refused}`) }}</p>
        <RouterLink v-else-if="ownDump" class="push" :to="`/stock?image=${ownDump.id}`">{{ t('flash.own.mark') }}</RouterLink>
      </div>
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
        <TextField
          v-for="one in texts"
          :id="`flash-${one}`"
          :key="one"
          v-model="fresh[one]"
          :label="t(`flash.field.${one}`)"
          :bounds="{ longest: 120 }"
        />
        <TextField
          id="flash-resolution"
          v-model="fresh.resolution"
          :label="t('flash.target.field.resolution')"
          :error="fresh.resolution.trim() !== '' && !resolutionOf(fresh.resolution) ? t('flash.wrong.resolution') : undefined"
          placeholder="1920 x 1080"
        />
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
details {
  display: grid;
  gap: 10px;
}
details .fields {
  margin-bottom: 10px;
}
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
}
</style>
