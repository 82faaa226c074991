<script setup lang="ts">
/** The light filmed: by the camera, or in a video file. The spot is picked on the picture; what was recorded is kept whatever happens. */
import type { LightTrace } from '@veglia/core';
import { computed, nextTick, onUnmounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { openCamera } from '../../camera.ts';
import { film, filmOfFile, filmWidth, noteOn, traceOf, type Film, type FilmNote, type FilmProblem } from './film.ts';

const props = defineProps<{ of: 'camera' | 'video' }>();
const emit = defineEmits<{ recorded: [trace: LightTrace] }>();
const { t } = useI18n();
const video = ref<HTMLVideoElement>();
const problem = ref<FilmProblem>();
const open = ref(false);
const recording = shallowRef<Film>();
const starting = ref(false);
const seconds = ref(0);
const note = ref<FilmNote>();
const spot = ref({ x: 0.5, y: 0.5 });
const level = ref(0);
let stream: MediaStream | undefined;
let url = '';
let chosen: File | undefined;

async function startCamera(): Promise<void> {
  problem.value = undefined;
  const opened = await openCamera({ still: true });
  if (typeof opened === 'string') {
    problem.value = opened;
    return;
  }
  stream = opened;
  open.value = true;
  await nextTick();
  if (video.value) video.value.srcObject = stream;
  await video.value?.play();
}
async function openFile(event: Event): Promise<void> {
  const [file] = (event.target as HTMLInputElement).files ?? [];
  if (!file) return;
  problem.value = undefined;
  finish();
  if (url !== '') URL.revokeObjectURL(url);
  url = URL.createObjectURL(file);
  chosen = file;
  open.value = true;
  await nextTick();
  const player = video.value;
  if (!player) return;
  player.src = url;
  player.muted = true;
  player.onerror = () => {
    problem.value = 'cannot-play';
    open.value = false;
  };
  // The first picture, so that the spot can be picked.
  player.onloadeddata = () => (player.currentTime = 0.01);
}

function pick(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  spot.value = { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height };
  if (recording.value) finish();
}
/** The spot by keys, a fiftieth of the picture at a time. */
function nudge(event: KeyboardEvent): void {
  const step = { ArrowLeft: [-0.02, 0], ArrowRight: [0.02, 0], ArrowUp: [0, -0.02], ArrowDown: [0, 0.02] }[event.key];
  if (!step) return;
  event.preventDefault();
  const [dx = 0, dy = 0] = step;
  spot.value = { x: Math.min(1, Math.max(0, spot.value.x + dx)), y: Math.min(1, Math.max(0, spot.value.y + dy)) };
}
const share = (): number => (video.value?.videoHeight ?? 1) / Math.max(1, video.value?.videoWidth ?? 1);

function seen(now: Film): void {
  seconds.value = now.seconds.at(-1) ?? 0;
  level.value = now.lights.at(-1)?.level ?? 0;
  note.value = noteOn(now, share());
  // The mark moves with the light.
  if (now.seconds.length % 6 === 0) spot.value = { x: now.spot.x / filmWidth, y: now.spot.y / (filmWidth * share()) };
  if (note.value === 'lost') finish();
}
async function start(): Promise<void> {
  const player = video.value;
  if (!player || starting.value) return;
  note.value = undefined;
  starting.value = true;
  // Where it can't be taken apart, or what does that can't be fetched, it is played.
  const file = props.of === 'video' ? chosen : undefined;
  const apart = file && (await filmOfFile(file, { ...spot.value }, seen).catch(() => undefined));
  starting.value = false;
  // Left, or another film chosen meanwhile.
  if (!video.value || (file && file !== chosen)) return;
  if (apart) {
    recording.value = apart.film;
    await apart.read();
    if (apart.film.seconds.length === 0) problem.value = 'cannot-play';
    if (recording.value === apart.film) finish();
    return;
  }
  recording.value = film(player, spot.value, seen);
  if (props.of === 'video') {
    player.currentTime = 0;
    player.onended = finish;
    await player.play();
  }
}
function finish(): void {
  const done = recording.value;
  recording.value = undefined;
  done?.stop();
  if (props.of === 'video') video.value?.pause();
  if (done && done.seconds.length > 0) emit('recorded', traceOf(done));
}
onUnmounted(() => {
  recording.value?.stop();
  for (const track of stream?.getTracks() ?? []) track.stop();
  if (url !== '') URL.revokeObjectURL(url);
});
const mark = computed(() => ({ left: `${spot.value.x * 100}%`, top: `${spot.value.y * 100}%` }));
</script>

<template>
  <div>
    <p v-if="of === 'camera' && !open">
      <button type="button" class="push full" data-test="camera-on" @click="startCamera">{{ t('blink.cameraOn') }}</button>
    </p>
    <p v-if="of === 'video'">
      <label class="push">
        {{ t('blink.chooseVideo') }}
        <input type="file" accept="video/*" class="visually-hidden" data-test="video-file" @change="openFile" />
      </label>
    </p>
    <p v-if="problem" class="alarm" role="alert" data-test="film-problem">{{ t(`blink.problem.${problem}`) }}</p>
    <template v-if="open">
      <p class="soft">{{ t('blink.pickSpot') }}</p>
      <div class="frame" role="button" tabindex="0" :aria-label="t('blink.pickSpot')" data-test="film-frame" @click="pick" @keydown="nudge">
        <video ref="video" muted playsinline />
        <span class="mark" :style="mark" aria-hidden="true" />
      </div>
      <p class="inline">
        <button v-if="!recording" type="button" class="push full" data-test="record" :disabled="starting" @click="start">
          {{ t('blink.record') }}
        </button>
        <button v-else type="button" class="push full" data-test="stop" @click="finish">{{ t('blink.stop') }}</button>
        <span v-if="recording" class="figure">{{ t('blink.recorded', { n: seconds.toFixed(0) }) }}</span>
        <meter v-if="recording" :value="Math.sqrt(level)" min="0" max="1" :aria-label="t('blink.brightness')" />
      </p>
      <p v-if="note" class="alarm" role="status" data-test="film-note">{{ t(`blink.note.${note}`) }}</p>
    </template>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  width: fit-content;
  max-width: 100%;
  cursor: crosshair;
  line-height: 0;
}
video {
  max-width: 100%;
  max-height: 300px;
  border-radius: var(--radius);
  background: #000;
}
.mark {
  position: absolute;
  width: 26px;
  height: 26px;
  margin: -13px 0 0 -13px;
  border: 3px solid #fff;
  border-radius: 50%;
  box-shadow:
    0 0 0 2px #000,
    inset 0 0 0 2px #000;
}
</style>
