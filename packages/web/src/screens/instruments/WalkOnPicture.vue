<script setup lang="ts">
/** A rail on the picture of its board: parts are pressed in order along the track, and each reading is entered at the one that is ringed. */
import { branchesText, parseQuantity, railWithBranches, type Mark, type Report } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import MeterButton from '../../parts/MeterButton.vue';
import UnitInput from '../../parts/UnitInput.vue';
import BoardPicture from '../boards/BoardPicture.vue';
import BoardChoice from './BoardChoice.vue';
import { useBoardPictures } from './boardPictures.ts';

const props = defineProps<{
  /** As typed; written to. */
  typed: Record<string, string>;
  report: Report | undefined;
  /** The boards of a job; left out: all that the shop knows. */
  boards?: readonly string[];
}>();
const { t } = useI18n();
/** What a rail may run along. */
const isPart = (mark: Mark): boolean => mark.kind === 'part' || mark.kind === 'test-point' || mark.kind === 'take-off-first';
const from = useBoardPictures(() => props.boards, isPart, 2);
const { picture } = from;

/** A name in a list has no blanks. */
const token = (name: string): string => name.replace(/[\s;,]+/g, '-');
const row = computed(() => (props.typed.names ?? '').split(/[;,\s]+/).filter((one) => one !== ''));
const on = computed((): readonly number[] => {
  try {
    return railWithBranches(row.value.length, props.typed.branches ?? '');
  } catch {
    return railWithBranches(row.value.length, '');
  }
});
const texts = computed(
  () =>
    new Map(
      (picture.value?.marks ?? []).map((mark) => {
        const at = row.value.indexOf(token(mark.name));
        return [mark.id, at < 0 ? '' : String(at + 1)];
      }),
    ),
);
/** Pressed last; the next part that is added hangs on it. */
const selected = ref<number>();
const suggested = computed(() => {
  const at = props.report?.findings.find(({ code }) => code === 'short-read-next' || code === 'short-read-again')?.values.at;
  return typeof at === 'number' ? at : undefined;
});
const toRead = computed(() => selected.value ?? suggested.value);
const ringed = computed(() => picture.value?.marks.find(({ name }) => token(name) === row.value[toRead.value ?? -1])?.id ?? '');
function put(names: readonly string[], hangs: readonly number[]): void {
  Object.assign(props.typed, { names: names.join(' '), branches: branchesText(hangs), capacitors: '' });
}
function press(id: string): void {
  const name = token(picture.value?.marks.find((mark) => mark.id === id)?.name ?? '');
  const known = row.value.indexOf(name);
  if (known >= 0) {
    selected.value = known;
    return;
  }
  const hangs = [...on.value, row.value.length === 0 ? -1 : (selected.value ?? row.value.length - 1)];
  const names = [...row.value, name];
  put(names, hangs);
  selected.value = names.length - 1;
}
const readings = computed(() =>
  (props.typed.along ?? '')
    .split(/[;\n]+/)
    .map((one) => one.trim())
    .filter((one) => one !== ''),
);
function undo(): void {
  const number = row.value.length;
  put(row.value.slice(0, -1), on.value.slice(0, -1));
  props.typed.along = readings.value.filter((one) => !new RegExp(`^${number}[\\s=:]`).test(one)).join('; ');
  selected.value = undefined;
}
const reading = ref<string>();
const wrong = ref(false);
function enter(): void {
  const text = (reading.value ?? '').trim();
  if (text === '' || toRead.value === undefined) return;
  const ohms = parseQuantity(text, 'Ω');
  wrong.value = ohms === undefined || ohms < 0 || ohms > 100;
  if (wrong.value) return;
  props.typed.along = [...readings.value, `${toRead.value + 1} ${text}`].join('; ');
  reading.value = '';
  selected.value = undefined;
}
</script>

<template>
  <div class="onpicture" data-test="walk-on-picture">
    <BoardChoice :from="from" />
    <template v-if="picture">
      <p class="soft">{{ t(row.length < 2 ? 'walk.press' : 'walk.hang') }}</p>
      <BoardPicture
        :photo="picture.photo"
        :alt="picture.name || t('walk.picture')"
        :marks="picture.marks"
        :texts="texts"
        :chosen="ringed"
        :placed="[]"
        :placing="false"
        @choose="press"
      >
        <button v-if="row.length > 0" type="button" class="push" data-test="walk-undo" @click="undo">
          {{ t('walk.undo', { name: row.at(-1) }) }}
        </button>
      </BoardPicture>
      <div v-if="toRead !== undefined && row.length >= 2" class="row">
        <label class="row">
          <b>{{ t('walk.read', { name: row[toRead] ?? '', number: toRead + 1 }) }}</b>
          <UnitInput v-model="reading" unit="Ω" :aria-invalid="wrong" data-test="walk-reading" @keydown.enter.prevent="enter" />
        </label>
        <button type="button" class="push full" data-test="walk-enter" @click="enter">{{ t('walk.enter') }}</button>
        <MeterButton />
        <span v-if="wrong" class="alarm" role="alert">{{ t('walk.wrong') }}</span>
      </div>
    </template>
  </div>
</template>

<style scoped>
.onpicture {
  display: grid;
  gap: 6px;
  margin: 8px 0 12px;
}
.onpicture :deep(.frame) {
  max-height: min(46dvh, 420px);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  margin: 0;
}
</style>
