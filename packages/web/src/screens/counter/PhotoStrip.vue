<script setup lang="ts">
/** Photos first, if wished: dropped, pasted, chosen or taken; what is printed on one is proposed for the fields, each taken by one key. */
import { photoSubjects, type CompiledPack } from '@veglia/core';
import { computed, onMounted, onUnmounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { addPhoto, photoUrl } from '../../stores/photos.ts';
import { textOfPicture } from '../../workers/recognise.ts';
import type { IntakePhoto } from './intake.ts';
import { proposalsOf, type PlateProposal } from './plateText.ts';

const props = defineProps<{ compiled: CompiledPack }>();
const photos = defineModel<IntakePhoto[]>({ required: true });
const emit = defineEmits<{ take: [proposal: PlateProposal] }>();
const { t } = useI18n();
const urls = ref<Record<string, string>>({});
const refused = ref<string[]>([]);
const reading = ref('');
const said = ref('');
const proposals = ref<PlateProposal[]>([]);
const over = ref(false);
const list = ref<HTMLElement>();

watch(
  photos,
  async (now) => {
    for (const { id } of now) if (urls.value[id] === undefined) urls.value[id] = await photoUrl(id);
  },
  { immediate: true, deep: true },
);

async function add(files: Iterable<File>): Promise<void> {
  refused.value = [];
  for (const file of files) {
    const added = await addPhoto(file, file.name);
    if ('refused' in added) refused.value.push(`${file.name}: ${added.refused === 'said' ? added.why : t('counter.photo.tooLarge')}`);
    else photos.value = [...photos.value, { ...added, of: photos.value.length === 0 ? 'plate' : 'condition' }];
  }
}
function drop(event: DragEvent): void {
  over.value = false;
  void add(event.dataTransfer?.files ?? []);
}
function chosen(event: Event): void {
  const field = event.target as HTMLInputElement;
  void add([...(field.files ?? [])]).then(() => (field.value = ''));
}
function pasted(event: ClipboardEvent): void {
  const files = [...(event.clipboardData?.files ?? [])];
  if (files.length === 0) return;
  event.preventDefault();
  void add(files);
}
onMounted(() => {
  window.addEventListener('paste', pasted);
});
onUnmounted(() => {
  window.removeEventListener('paste', pasted);
  for (const url of Object.values(urls.value)) if (url.startsWith('blob:')) URL.revokeObjectURL(url);
});

const known = computed(() => ({
  makers: [...new Set(props.compiled.pack.families.map(({ maker }) => maker))],
  models: props.compiled.pack.families.flatMap(({ models }) => models),
}));
async function read(photo: IntakePhoto): Promise<void> {
  reading.value = photo.id;
  said.value = '';
  proposals.value = [];
  try {
    const picture = await (await fetch(urls.value[photo.id] ?? '')).blob();
    proposals.value = proposalsOf(await textOfPicture(picture), known.value);
    if (proposals.value.length === 0) said.value = t('counter.photo.nothingRead');
    else setTimeout(() => list.value?.focus());
  } catch {
    // Whatever failed in there, the picture is still beside the fields.
    said.value = t('counter.photo.cantRead');
  } finally {
    reading.value = '';
  }
}
function take(proposal: PlateProposal): void {
  emit('take', proposal);
  proposals.value = proposals.value.filter((one) => one !== proposal);
}
function onKey(event: KeyboardEvent): void {
  const one = proposals.value[Number(event.key) - 1];
  if (!one) return;
  event.preventDefault();
  take(one);
}
</script>

<template>
  <fieldset
    class="sheet photos"
    :class="{ over }"
    data-test="photos"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <legend>{{ t('counter.photo.title') }} <kbd>Alt 5</kbd></legend>
    <ul v-if="photos.length > 0">
      <li v-for="photo in photos" :key="photo.id">
        <img :src="urls[photo.id]" :alt="`${t(`photoOf.${photo.of}`)}: ${photo.name}`" />
        <label>
          <span class="visually-hidden">{{ t('counter.photo.of') }}</span>
          <select v-model="photo.of">
            <option v-for="one in photoSubjects" :key="one" :value="one">{{ t(`photoOf.${one}`) }}</option>
          </select>
        </label>
        <button type="button" class="plain" :disabled="reading !== ''" @click="read(photo)">
          {{ reading === photo.id ? t('counter.photo.reading') : t('counter.photo.read') }}
        </button>
        <button type="button" class="plain" @click="photos = photos.filter((one) => one.id !== photo.id)">
          {{ t('settings.remove') }}
        </button>
      </li>
    </ul>
    <p v-for="one in refused" :key="one" class="alarm" role="alert" data-test="photo-refused">{{ one }}</p>
    <div
      v-if="proposals.length > 0"
      ref="list"
      class="proposals"
      tabindex="-1"
      role="group"
      :aria-label="t('counter.photo.proposals')"
      @keydown="onKey"
    >
      <button v-for="(one, index) in proposals" :key="one.field" type="button" class="push" @click="take(one)">
        <KeyCap :label="String(index + 1)" /> {{ t(`counter.${one.field}`) }}: {{ one.value }}
      </button>
    </div>
    <p v-if="said" class="soft" role="status">{{ said }}</p>
    <p class="ways">
      <label class="push">
        {{ t('counter.photo.choose') }}
        <input type="file" accept="image/*" multiple class="visually-hidden" data-test="photo-file" @change="chosen" />
      </label>
      <label class="push camera">
        {{ t('counter.photo.camera') }}
        <input type="file" accept="image/*" capture="environment" class="visually-hidden" @change="chosen" />
      </label>
      <span class="soft">{{ t('counter.photo.ways') }}</span>
    </p>
  </fieldset>
</template>

<style scoped>
.photos {
  min-width: 0;
}
.over {
  outline: 3px dashed var(--accent);
}
legend kbd {
  font-weight: 400;
  font-size: 13px;
}
legend {
  font-weight: 700;
  padding: 0 6px;
}
ul,
.ways,
.proposals {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
li {
  display: grid;
  gap: 4px;
  justify-items: start;
}
img {
  width: 150px;
  height: 100px;
  object-fit: cover;
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
select {
  min-height: 40px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
}
.push:focus-within {
  outline: 3px solid var(--accent);
  outline-offset: 2px;
}
</style>
