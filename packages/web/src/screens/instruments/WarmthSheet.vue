<script setup lang="ts">
/** Temperature pictures around power-on: what warms, how fast, and where. Pictures stay in this browser. */
import { findingSentence, instrumentWords, problemSentence, words as contractWords } from '@veglia/contract';
import {
  formatQuantity,
  InputRefused,
  parseFrame,
  parseQuantity,
  thermalReport,
  type Frame,
  type JudgedSpot,
  type Report,
  type Share,
  type ThermalPicture,
  type TimedFrame,
  type Warmth,
} from '@veglia/core';
import { wrap, type Remote } from 'comlink';
import { computed, defineAsyncComponent, markRaw, onUnmounted, ref, shallowRef, toRaw, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { ChartOption, Colours } from '../../charts/option.ts';
import { warmthOption } from '../../charts/warmth.ts';
import PressPicture from '../../parts/PressPicture.vue';
import type { Thermal } from '../../workers/thermal.worker.ts';

/** Boards of a job; left out: all that the shop knows. */
const props = defineProps<{
  boards?: readonly string[];
  /** Pictures of a made-up set, as a camera’s CSV. */
  madeUp?: () => Promise<{ readonly before: string; readonly after: string }>;
}>();
defineSlots<{ done(got: { report: Report; read: Readonly<Record<string, string>> }): unknown }>();
const { t } = useI18n();
const words = instrumentWords.en;
const WarmthOnBoard = defineAsyncComponent(() => import('./WarmthOnBoard.vue'));
const ChartFrame = defineAsyncComponent(() => import('../../charts/ChartFrame.vue'));

interface Picture {
  readonly name: string;
  /** As it was read: a matrix, or a picture once its scale is marked. */
  frame?: Frame | undefined;
  /** In colours, with a scale in it. */
  readonly colours?: ThermalPicture;
  readonly url?: string;
  seconds: string;
  /** Ends of its scale, as typed. */
  low: string;
  high: string;
}
const pictures = ref<Picture[]>([]);
/** Cold and hot end of the scale, then two corners of what is looked at: the same in all pictures of one camera. */
const marks = ref<Share[]>([]);
const inColours = computed(() => pictures.value.filter(({ url }) => url !== undefined));
const markNames = ['cold', 'hot', 'corner', 'opposite'] as const;
const refusal = ref('');
/** Of files that were added last. */
const unread = ref('');
const warmth = shallowRef<Warmth>();
/** The last of the pictures that were compared. */
const last = shallowRef<Frame>();
const onBoard = ref(false);
const judged = shallowRef<{ readonly spots: readonly JudgedSpot[]; readonly cold: readonly string[] }>();
const report = computed(() => warmth.value && thermalReport(warmth.value, judged.value));
const ofPlace = (code: string): boolean => code === 'warm-first' || code.startsWith('warm-next-');
const read = computed(() =>
  Object.fromEntries(pictures.value.map(({ name, seconds }, index) => [`picture${index + 1}`, `${seconds} s: ${name}`])),
);

async function addMadeUp(): Promise<void> {
  const made = await props.madeUp?.();
  for (const [name, text] of Object.entries(made ?? {}))
    pictures.value.push({ name, frame: markRaw(parseFrame(text, name)), seconds: String(pictures.value.length), low: '', high: '' });
}

let worker: Worker | undefined;
let remote: Remote<Thermal> | undefined;
function comparer(): Remote<Thermal> {
  worker ??= new Worker(new URL('../../workers/thermal.worker.ts', import.meta.url), { type: 'module' });
  return (remote ??= wrap<Thermal>(worker));
}
onUnmounted(() => worker?.terminate());

async function add(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  unread.value = '';
  for (const file of field.files ?? []) {
    // The first is from before power-on, each other a second later until somebody says when.
    const seconds = String(pictures.value.length);
    const { low = '', high = '' } = inColours.value.at(-1) ?? {};
    try {
      if (/^image\/(png|jpeg)$/.test(file.type)) {
        const colours = markRaw(await dotsOf(file));
        pictures.value.push({ name: file.name, colours, url: URL.createObjectURL(file), seconds, low, high });
        // Raw: a picture is passed to the worker as it is.
      } else pictures.value.push({ name: file.name, frame: markRaw(parseFrame(await file.text(), file.name)), seconds, low: '', high: '' });
    } catch (error) {
      if (error instanceof DOMException) unread.value = t('warmth.noPicture', { name: file.name });
      else if (error instanceof InputRefused) unread.value = error.problems.map((one) => problemSentence(one, contractWords.en)).join(' ');
      else throw error;
    }
  }
  field.value = '';
}
/** Throws DOMException for what is no picture. */
async function dotsOf(file: File): Promise<ThermalPicture> {
  const bitmap = await createImageBitmap(file);
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d');
  if (!context) throw new DOMException('no canvas');
  context.drawImage(bitmap, 0, 0);
  const { width, height, data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  return { width, height, rgba: data };
}
function remove(index: number): void {
  const [gone] = pictures.value.splice(index, 1);
  if (gone?.url) URL.revokeObjectURL(gone.url);
}
onUnmounted(() => {
  for (const { url } of pictures.value) if (url) URL.revokeObjectURL(url);
});

/** Read once for its scale: another time in seconds asks for no other temperatures. */
const readBefore = new WeakMap<ThermalPicture, { readonly by: string; readonly frame: Frame }>();
/** The frame of a picture; undefined while its scale isn't marked; why not, where it can't be read. */
async function frameOf({ frame, colours, low, high, name }: Picture): Promise<Frame | undefined | { readonly refused: string }> {
  if (!colours) return frame;
  const [cold, hot, from, to] = marks.value;
  const celsius = [parseQuantity(low, '°C'), parseQuantity(high, '°C')] as const;
  if (!cold || !hot || celsius[0] === undefined || celsius[1] === undefined) return undefined;
  const by = JSON.stringify([marks.value, celsius]);
  const before = readBefore.get(toRaw(colours));
  if (before?.by === by) return before.frame;
  const found = await comparer().read(
    colours,
    { cold: [...cold], hot: [...hot], celsius: [celsius[0], celsius[1]] },
    from && to ? [[...from], [...to]] : undefined,
  );
  if ('refused' in found) return { refused: `${name}: ${found.refused}` };
  readBefore.set(toRaw(colours), { by, frame: found });
  return found;
}
let asked = 0;
watch(
  [pictures, marks],
  async ([all]) => {
    warmth.value = undefined;
    refusal.value = '';
    const mine = (asked += 1);
    const frames: TimedFrame[] = [];
    for (const one of all) {
      const frame = await frameOf(one);
      if (mine !== asked) return;
      if (frame && 'refused' in frame) {
        refusal.value = t('warmth.refused', { why: frame.refused });
        return;
      }
      if (!frame) return;
      frames.push({ ...frame, seconds: parseQuantity(one.seconds, 's') ?? Number.NaN });
    }
    if (frames.length < 2) return;
    if (frames.some(({ seconds }) => Number.isNaN(seconds))) {
      refusal.value = t('warmth.seconds');
      return;
    }
    const found = await comparer().compare(frames);
    if (mine !== asked) return;
    if ('refused' in found) refusal.value = t('warmth.refused', { why: found.refused });
    else {
      last.value = frames.at(-1);
      warmth.value = found;
    }
  },
  { deep: true },
);
const option = (colours: Colours): ChartOption =>
  warmthOption(colours, warmth.value!, { title: t('warmth.chart'), rise: t('warmth.rise') });
const rows = computed(() =>
  (warmth.value?.spots ?? []).map(({ x, y, rise, rate, by, cells }, index) => [
    String(index + 1),
    `${Math.round(x * 100)} %`,
    `${Math.round(y * 100)} %`,
    `${rise.toFixed(1)} °C`,
    `${rate.toPrecision(2)} °C/s`,
    `${by} s`,
    String(cells),
  ]),
);
const head = computed(() => ['n', 'x', 'y', 'rise', 'rate', 'by', 'cells'].map((one) => t(`warmth.column.${one}`)));
</script>

<template>
  <div class="sheetpair" data-test="warmth">
    <section>
      <h2>{{ words.instrument.thermal?.name }}</h2>
      <p class="soft">{{ words.instrument.thermal?.help }}</p>
      <p v-for="(one, index) in pictures" :key="index" class="row" data-test="picture">
        <label>
          <span class="visually-hidden">{{ t('warmth.at', { name: one.name }) }}</span>
          <input v-model="one.seconds" type="text" inputmode="decimal" /> s
        </label>
        <span>{{ one.name }}</span>
        <span v-if="one.frame" class="soft">{{ t('warmth.size', { width: one.frame.width, height: one.frame.height }) }}</span>
        <template v-if="one.colours">
          <label>{{ t('warmth.low') }} <input v-model="one.low" type="text" inputmode="decimal" data-test="scale-low" /> °C</label>
          <label>{{ t('warmth.high') }} <input v-model="one.high" type="text" inputmode="decimal" data-test="scale-high" /> °C</label>
        </template>
        <button type="button" class="plain" @click="remove(index)">{{ t('warmth.remove') }}</button>
      </p>
      <div v-if="inColours[0]?.url" class="scale">
        <p v-if="marks.length < 4" class="soft" data-test="mark-next">{{ t(`warmth.press.${markNames[marks.length] ?? 'cold'}`) }}</p>
        <PressPicture
          :url="inColours[0].url"
          :alt="inColours[0].name"
          :dots="marks.map((at, index) => ({ at, text: t(`warmth.mark.${markNames[index] ?? 'cold'}`) }))"
          @press="(at) => marks.length < 4 && marks.push(at)"
        />
        <button v-if="marks.length > 0" type="button" class="plain" data-test="mark-again" @click="marks = []">
          {{ t('warmth.again') }}
        </button>
      </div>
      <p v-if="pictures.length < 2" class="soft">{{ t('warmth.needs', 2 - pictures.length) }}</p>
      <p v-if="unread" class="alarm" role="alert">{{ unread }}</p>
      <p v-if="refusal" class="alarm" role="alert">{{ refusal }}</p>
      <button v-if="madeUp" type="button" class="push" data-test="practice-read" @click="addMadeUp">{{ t('practice.readOn') }}</button>
      <label class="push">
        {{ t('warmth.add') }}
        <input
          type="file"
          accept=".csv,.txt,text/csv,image/png,image/jpeg"
          multiple
          class="visually-hidden"
          data-test="add-pictures"
          @change="add"
        />
      </label>
    </section>
    <section role="status" data-test="result">
      <h2>{{ t('instruments.result') }}</h2>
      <template v-if="report && warmth">
        <dl>
          <template v-for="figure in report.figures" :key="figure.id">
            <dt>{{ words.figure[figure.id] ?? figure.id }}</dt>
            <dd class="figure" :data-figure="figure.id">{{ formatQuantity(figure.value, figure.unit) }}</dd>
          </template>
        </dl>
        <p v-for="(finding, index) in report.findings" :key="finding.code" class="finding" :data-finding="finding.code">
          <strong v-if="ofPlace(finding.code)" class="figure">{{ index + 1 }}</strong> {{ findingSentence(finding) }}
        </p>
        <template v-if="warmth.spots.length > 0 && last">
          <button type="button" class="push" :aria-expanded="onBoard" data-test="on-board" @click="onBoard = !onBoard">
            {{ t(onBoard ? 'walk.close' : 'walk.open') }}
          </button>
          <WarmthOnBoard
            v-if="onBoard"
            :warmth="warmth"
            :frame="last"
            v-bind="boards ? { boards } : {}"
            @judged="(found) => (judged = found)"
          />
        </template>
        <slot name="done" :report="report" :read="read" />
        <ChartFrame class="plot" :title="t('warmth.chart')" :option="option" :head="head" :rows="rows" file="warmth" />
      </template>
    </section>
  </div>
</template>

<style scoped>
.sheetpair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr);
  gap: 14px;
  align-items: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
.row input {
  width: 70px;
  min-height: 40px;
  padding: 2px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
  text-align: right;
}
.scale {
  max-width: 460px;
  margin: 6px 0;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 14px;
  margin: 6px 0;
}
dt,
dd {
  margin: 0;
}
dd {
  text-align: right;
}
.finding {
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.plot :deep(.drawn) {
  height: 340px;
}
@media (max-width: 1000px) {
  .sheetpair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
