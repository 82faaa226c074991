<script setup lang="ts">
/** Warm places on the picture of a board: the same two or three places are pressed on both, and each warm one gets its part and what a good set has there. */
import { alignPlaces, judgeWarmth, type Frame, type JudgedSpot, type PlacePair, type Share, type Warmth } from '@veglia/core';
import { computed, onUnmounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { usePhotoAddress } from '../../parts/photoAddress.ts';
import PressPicture from '../../parts/PressPicture.vue';
import BoardChoice from './BoardChoice.vue';
import { useBoardPictures } from './boardPictures.ts';
import { greyPicture } from './greyPicture.ts';

const props = defineProps<{ warmth: Warmth; frame: Frame; boards?: readonly string[] }>();
const emit = defineEmits<{ judged: [found: { readonly spots: readonly JudgedSpot[]; readonly cold: readonly string[] } | undefined] }>();
const { t } = useI18n();
const from = useBoardPictures(
  () => props.boards,
  (mark) => mark.kind !== 'connector',
  1,
);
const { picture } = from;
const photo = usePhotoAddress(() => picture.value?.photo ?? '');
const grey = shallowRef<string>();
watch(
  () => props.frame,
  async (frame) => {
    if (grey.value) URL.revokeObjectURL(grey.value);
    grey.value = await greyPicture(frame);
  },
  { immediate: true },
);
onUnmounted(() => {
  if (grey.value) URL.revokeObjectURL(grey.value);
});

/** Dots of the board's picture. */
const size = ref<readonly [number, number]>();
const pairs = ref<[Share, Share][]>([]);
const waiting = ref<Share>();
const letters = 'ABC';
watch(picture, () => {
  pairs.value = [];
  waiting.value = undefined;
  size.value = undefined;
});
function pressWarm(at: Share): void {
  if (pairs.value.length < letters.length) waiting.value = at;
}
function pressBoard(at: Share): void {
  if (!waiting.value) return;
  pairs.value.push([waiting.value, at]);
  waiting.value = undefined;
}
const placed = computed(() => {
  const dots = size.value;
  if (!dots) return undefined;
  const { width, height, spots } = props.warmth;
  const align = alignPlaces(
    pairs.value.map(([a, b]): PlacePair => [
      [a[0] * width, a[1] * height],
      [b[0] * dots[0], b[1] * dots[1]],
    ]),
  );
  return (
    align &&
    spots.map(({ x, y, rise }) => {
      const [px, py] = align([x * width, y * height]);
      return { at: [px / dots[0], py / dots[1]] as const, rise };
    })
  );
});
const judged = computed(() => {
  const marks = (picture.value?.marks ?? []).flatMap((mark) =>
    mark.kind === 'connector' ? [] : [{ name: mark.name, at: mark.at, warm: mark.warm }],
  );
  return placed.value && judgeWarmth(placed.value, marks);
});
watch(judged, (found) => emit('judged', found));
onUnmounted(() => emit('judged', undefined));
const inside = ({ at: [x, y] }: { readonly at: Share }): boolean => x >= 0 && x <= 1 && y >= 0 && y <= 1;
const warmDots = computed(() => [
  ...props.warmth.spots.map(({ x, y }, index) => ({ at: [x, y] as const, text: String(index + 1) })),
  ...[...pairs.value.map(([at]) => at), ...(waiting.value ? [waiting.value] : [])].map((at, index) => ({ at, text: letters[index] ?? '' })),
]);
const boardDots = computed(() => [
  ...pairs.value.map(([, at], index) => ({ at, text: letters[index] ?? '' })),
  ...(placed.value ?? []).map(({ at }, index) => ({ at, text: String(index + 1) })).filter(inside),
]);
</script>

<template>
  <div class="onboard" data-test="warmth-on-board">
    <BoardChoice :from="from" />
    <template v-if="picture && photo">
      <p class="soft" data-test="place-next">
        {{
          pairs.length === letters.length
            ? t('warmth.placed')
            : t(waiting ? 'warmth.placeOther' : 'warmth.placeHere', { letter: letters[pairs.length] })
        }}
      </p>
      <div class="both">
        <PressPicture v-if="grey" :url="grey" :alt="t('warmth.chart')" :dots="warmDots" data-which="warm" @press="pressWarm" />
        <PressPicture
          :url="photo"
          :alt="picture.name || t('walk.picture')"
          :dots="boardDots"
          data-which="board"
          @press="pressBoard"
          @size="(dots) => (size = dots)"
        />
      </div>
      <button v-if="pairs.length > 0 || waiting" type="button" class="plain" @click="((pairs = []), (waiting = undefined))">
        {{ t('warmth.again') }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.onboard {
  display: grid;
  gap: 6px;
  margin: 8px 0;
}
.onboard > button {
  justify-self: start;
}
.both {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px;
  align-items: start;
}
</style>
