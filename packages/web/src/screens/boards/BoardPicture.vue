<script setup lang="ts">
/** A picture of a board with its marks, larger or smaller; where it is pressed is told as shares of its width and height. */
import { pinSpot, type BoardSpot, type Mark } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { usePhotoAddress } from '../../parts/photoAddress.ts';

const props = defineProps<{
  photo: string;
  alt: string;
  marks: readonly Mark[];
  /** Of the mark that is looked at. */
  chosen: string;
  /** Places of a mark that is being made. */
  placed: readonly BoardSpot[];
  /** A press places something; otherwise it does nothing. */
  placing: boolean;
  /** Said in a mark of one place, by its id. */
  texts?: ReadonlyMap<string, string>;
}>();
const emit = defineEmits<{ spot: [at: BoardSpot]; choose: [id: string] }>();
const { t } = useI18n();
const zoom = ref(1);
const url = usePhotoAddress(
  () => props.photo,
  () => (zoom.value = 1),
);
const frame = ref<HTMLElement>();
/** Larger than so nothing is sharper (value of ours). */
const mostZoom = 6;

interface Dot {
  readonly mark: Mark;
  readonly at: BoardSpot;
  readonly text: string;
  readonly title: string;
}
const dots = computed(() =>
  props.marks.flatMap((mark): Dot[] =>
    mark.kind === 'connector'
      ? mark.pins.map((pin, index) => ({
          mark,
          at: pinSpot(mark, index + 1),
          text: `${index + 1}`,
          title: `${mark.name} ${index + 1} ${pin.label}`,
        }))
      : [{ mark, at: mark.at, text: props.texts?.get(mark.id) ?? '', title: mark.name }],
  ),
);
const place = ([x, y]: BoardSpot): Record<string, string> => ({ left: `${x * 100}%`, top: `${y * 100}%` });
function press(event: MouseEvent): void {
  if (!props.placing) return;
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  if (box.width === 0 || box.height === 0) return;
  const share = (value: number): number => Math.min(Math.max(Number(value.toFixed(5)), 0), 1);
  emit('spot', [share((event.clientX - box.left) / box.width), share((event.clientY - box.top) / box.height)]);
}
/** What is in the middle stays there. */
async function magnify(by: number): Promise<void> {
  const view = frame.value;
  const before = zoom.value;
  zoom.value = Math.min(Math.max(before * by, 1), mostZoom);
  if (!view) return;
  const grown = zoom.value / before;
  const middle = [view.scrollLeft + view.clientWidth / 2, view.scrollTop + view.clientHeight / 2] as const;
  await Promise.resolve();
  requestAnimationFrame(() => view.scrollTo(middle[0] * grown - view.clientWidth / 2, middle[1] * grown - view.clientHeight / 2));
}
</script>

<template>
  <div class="picture">
    <div class="tools">
      <button type="button" class="push" data-test="zoom-in" :disabled="zoom >= mostZoom" @click="magnify(1.5)">
        {{ t('boards.zoomIn') }}
      </button>
      <button type="button" class="push" :disabled="zoom <= 1" @click="magnify(1 / 1.5)">{{ t('boards.zoomOut') }}</button>
      <slot />
    </div>
    <div ref="frame" class="frame" tabindex="0" :aria-label="alt">
      <div class="whole" :class="{ placing }" :style="{ width: `${zoom * 100}%` }" data-test="board-picture" @click="press">
        <img v-if="url" :src="url" :alt="alt" draggable="false" />
        <button
          v-for="(dot, index) in dots"
          :key="index"
          type="button"
          class="dot"
          :class="[dot.mark.kind, { chosen: dot.mark.id === chosen }]"
          :style="place(dot.at)"
          :title="dot.title"
          :aria-label="dot.title"
          :tabindex="placing ? -1 : 0"
          @click="
            (event) => {
              if (placing) return;
              event.stopPropagation();
              emit('choose', dot.mark.id);
            }
          "
        >
          {{ dot.text }}
        </button>
        <span v-for="(spot, index) in placed" :key="`new${index}`" class="dot fresh" :style="place(spot)" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 6px;
}
.frame {
  max-height: min(64dvh, 620px);
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--sunk);
}
.whole {
  position: relative;
}
.whole.placing {
  cursor: crosshair;
}
img {
  display: block;
  width: 100%;
  user-select: none;
}
.dot {
  position: absolute;
  display: grid;
  place-items: center;
  min-width: 19px;
  height: 19px;
  padding: 0 3px;
  transform: translate(-50%, -50%);
  border: 1.5px solid #fff;
  border-radius: 11px;
  background: #0b5d66;
  color: #fff;
  font-size: 12px;
  line-height: 1;
  cursor: pointer;
}
.placing .dot {
  pointer-events: none;
  opacity: 0.7;
}
.dot.fuse,
.dot.supply-link {
  border-radius: 3px;
  background: #16202b;
}
.dot.part,
.dot.take-off-first {
  border-radius: 3px;
  background: #4b5763;
}
.dot.hazard {
  border-radius: 0;
  background: #9c2f12;
  transform: translate(-50%, -50%) rotate(45deg);
}
.dot.chosen {
  outline: 3px solid #ffb000;
  outline-offset: 1px;
}
.dot.fresh {
  background: #ffb000;
  pointer-events: none;
}
</style>
