<script setup lang="ts">
/** Test pictures for a set: full screen from a laptop at its input, or as files for a USB stick. */
import { useEventListener, useFullscreen, useRafFn } from '@vueuse/core';
import { computed, nextTick, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import { saveBlob } from '../../saveBlob.ts';
import { drawPicture, pictureSizes, testPictures, type TestPicture } from './draw.ts';

const { t } = useI18n();
const which = ref<TestPicture>('white');
const size = ref('1920 × 1080');
const sizes = pictureSizes.map(([width, height]) => ({ value: `${width} × ${height}`, label: `${width} × ${height}` }));
const pixels = computed(() => pictureSizes.find(([width, height]) => `${width} × ${height}` === size.value) ?? pictureSizes[1]);
const stage = ref<HTMLCanvasElement>();
const preview = ref<HTMLCanvasElement>();
const { isFullscreen, enter, exit } = useFullscreen(stage);
const begun = ref(0);

function draw(canvas: HTMLCanvasElement | undefined, width: number, height: number, seconds: number): void {
  if (!canvas) return;
  if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
  const context = canvas.getContext('2d');
  if (context) drawPicture(context, which.value, width, height, seconds);
}
function drawAll(): void {
  const seconds = (performance.now() - begun.value) / 1000;
  draw(preview.value, 480, 270, seconds);
  // Dot for dot what the set is sent, whatever the page is scaled by.
  if (isFullscreen.value)
    draw(
      stage.value,
      Math.round(window.screen.width * window.devicePixelRatio),
      Math.round(window.screen.height * window.devicePixelRatio),
      seconds,
    );
}
const { pause, resume } = useRafFn(drawAll, { immediate: false });
watch(
  [which, isFullscreen, preview],
  async () => {
    await nextTick();
    drawAll();
    if (which.value === 'moving') resume();
    else pause();
  },
  { immediate: true },
);
function step(by: number): void {
  which.value = testPictures[(testPictures.indexOf(which.value) + by + testPictures.length) % testPictures.length] ?? 'white';
}
useEventListener('keydown', (event) => {
  if (!isFullscreen.value) return;
  if (['ArrowRight', 'ArrowDown', ' ', 'Enter', 'PageDown'].includes(event.key)) step(1);
  else if (['ArrowLeft', 'ArrowUp', 'PageUp'].includes(event.key)) step(-1);
  else return;
  event.preventDefault();
});
async function show(): Promise<void> {
  begun.value = performance.now();
  await enter();
}
async function save(): Promise<void> {
  const [width, height] = pixels.value;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) return;
  drawPicture(context, which.value, width, height);
  saveBlob(
    await canvas.convertToBlob({ type: 'image/png' }),
    `${testPictures.indexOf(which.value) + 1}-${which.value}-${width}x${height}.png`,
  );
}
</script>

<template>
  <div class="pictures">
    <header>
      <h1>{{ t('pictures.title') }}</h1>
      <p class="soft">{{ t('pictures.intro') }}</p>
    </header>
    <div class="columns">
      <ul class="sheet" data-test="pictures">
        <li v-for="one in testPictures" :key="one">
          <button type="button" :aria-pressed="one === which" :data-picture="one" @click="which = one">
            {{ t(`pictures.which.${one}`) }}
          </button>
        </li>
      </ul>
      <section class="sheet now">
        <h2>{{ t(`pictures.which.${which}`) }}</h2>
        <p>{{ t(`pictures.look.${which}`) }}</p>
        <canvas ref="preview" class="preview" :aria-label="t(`pictures.which.${which}`)" data-test="preview" />
        <p class="inline">
          <button type="button" class="push full" data-test="show-picture" @click="show">{{ t('pictures.show') }}</button>
          <button type="button" class="push" data-test="save-picture" @click="save">{{ t('pictures.save', { size }) }}</button>
        </p>
        <ChoiceField id="picture-size" v-model="size" class="size" :label="t('pictures.resolution')" :options="sizes" />
      </section>
    </div>
    <canvas ref="stage" class="stage" :class="{ shown: isFullscreen }" data-test="stage" @click="exit" />
  </div>
</template>

<style scoped>
.pictures {
  display: grid;
  gap: 10px;
}
.columns {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: 10px;
  align-items: start;
}
ul {
  margin: 0;
  list-style: none;
}
li button {
  width: 100%;
  min-height: 40px;
  padding: 4px 10px;
  text-align: left;
  color: var(--ink);
  background: none;
  border: 0;
  border-radius: var(--radius);
  cursor: pointer;
}
li button[aria-pressed='true'] {
  background: var(--accent-wash);
  font-weight: 700;
}
.now {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.size {
  width: 220px;
}
.preview {
  max-width: 100%;
  border: 1px solid var(--line);
}
.stage {
  display: none;
  cursor: none;
}
.stage.shown {
  display: block;
  width: 100vw;
  height: 100vh;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
