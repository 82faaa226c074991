<script setup lang="ts">
/** Touched, pressed, flexed: where, on which photo, and what the symptom did. */
import { stimuli, stimulusEffects, liveEntries, type Body, type CaseFold, type CompiledPack, type Entry } from '@veglia/core';
import { computed, reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import PhotoButton from '../../parts/PhotoButton.vue';
import TextField from '../../parts/TextField.vue';
import { photoUrl } from '../../stores/photos.ts';

const props = defineProps<{ fold: CaseFold; compiled: CompiledPack; entries: readonly Entry[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const live = computed(() => liveEntries(props.entries));
const photos = computed(() =>
  live.value.flatMap(({ body, seq }) => (body.kind === 'photo.added' ? [{ id: body.photo, of: body.of ?? 'other', seq }] : [])),
);
const tried = computed(() => live.value.flatMap(({ body, id }) => (body.kind === 'stimulus.tried' ? [{ ...body, id }] : [])));
const places = computed(() =>
  (props.compiled.layouts.get(props.fold.set.layout ?? '')?.assemblies ?? []).map((id) => ({
    value: id,
    label: names.place(id),
  })),
);
const form = reactive<{ way: (typeof stimuli)[number]; at: string; photo: string; mark: [number, number] | undefined; note: string }>({
  way: 'press',
  at: '',
  photo: '',
  mark: undefined,
  note: '',
});
const at = computed(() => form.at || props.fold.assemblies.find((one) => places.value.some(({ value }) => value === one.id))?.id || '');
const onPhoto = computed(() => tried.value.filter((one) => one.photo === form.photo && one.mark));

/** Taken here: it goes into the ledger, and the place is marked on it. */
function photographed(photo: string): void {
  emit('write', [{ kind: 'photo.added', v: 2, photo, of: 'board' }]);
  form.photo = photo;
  form.mark = undefined;
}
const picture = ref('');
watch(
  () => form.photo,
  async (id) => {
    if (picture.value.startsWith('blob:')) URL.revokeObjectURL(picture.value);
    picture.value = id === '' ? '' : await photoUrl(id);
  },
);

function mark(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const share = (part: number, whole: number): number => Math.min(1, Math.max(0, Math.round((part / whole) * 1000) / 1000));
  form.mark = [share(event.clientX - box.left, box.width), share(event.clientY - box.top, box.height)];
}
function record(effect: (typeof stimulusEffects)[number]): void {
  emit('write', [
    {
      kind: 'stimulus.tried',
      v: 1,
      way: form.way,
      at: at.value,
      effect,
      ...(form.photo === '' ? {} : { photo: form.photo }),
      ...(form.photo !== '' && form.mark ? { mark: [...form.mark] as [number, number] } : {}),
      ...(form.note.trim() === '' ? {} : { note: form.note.trim() }),
    },
  ]);
  form.note = '';
  form.mark = undefined;
}
</script>

<template>
  <section class="sheet fields" data-test="stimulus">
    <h2 class="wide">{{ t('stimulus.title') }}</h2>
    <p class="inline wide" role="group" :aria-label="t('stimulus.title')">
      <button
        v-for="way in stimuli"
        :key="way"
        type="button"
        class="push"
        :class="{ full: form.way === way }"
        :aria-pressed="form.way === way"
        :data-way="way"
        @click="form.way = way"
      >
        {{ t(`stimulus.way.${way}`) }}
      </button>
    </p>
    <ChoiceField id="stimulus-at" v-model="form.at" :label="t('stimulus.at')" :options="places" :none="names.place(at)" />
    <ChoiceField
      v-if="photos.length > 0"
      id="stimulus-photo"
      v-model="form.photo"
      :label="t('stimulus.photo')"
      :options="photos.map(({ id, of, seq }) => ({ value: id as string, label: `${t(`photoOf.${of}`)} (${seq})` }))"
      :none="t('stimulus.noPhoto')"
    />
    <PhotoButton :label="t('photo.take')" @added="photographed" />
    <button
      v-if="form.photo !== '' && picture !== ''"
      type="button"
      class="marked wide"
      :aria-label="t('stimulus.mark')"
      data-test="stimulus-photo-mark"
      @click="mark"
    >
      <img :src="picture" alt="" />
      <span
        v-for="one in onPhoto"
        :key="one.id"
        class="dot old"
        :style="{ left: `${(one.mark?.[0] ?? 0) * 100}%`, top: `${(one.mark?.[1] ?? 0) * 100}%` }"
      />
      <span v-if="form.mark" class="dot" :style="{ left: `${form.mark[0] * 100}%`, top: `${form.mark[1] * 100}%` }" />
    </button>
    <TextField id="stimulus-note" v-model="form.note" :label="t('stimulus.note')" />
    <p class="inline wide" role="group" :aria-label="t('stimulus.effectLabel')">
      {{ t('stimulus.effectLabel') }}
      <button v-for="effect in stimulusEffects" :key="effect" type="button" class="push" :data-effect="effect" @click="record(effect)">
        {{ t(`stimulus.effect.${effect}`) }}
      </button>
    </p>
    <p class="soft wide">{{ t('stimulus.noEvidence') }}</p>
  </section>
</template>

<style scoped>
.marked {
  position: relative;
  padding: 0;
  border: 1.5px solid var(--ink-soft);
  background: none;
  cursor: crosshair;
}
.marked img {
  display: block;
  width: 100%;
}
.dot {
  position: absolute;
  width: 22px;
  height: 22px;
  margin: -11px;
  border: 4px double var(--accent);
  background: var(--surface);
  opacity: 0.85;
}
.dot.old {
  opacity: 0.5;
}
</style>
