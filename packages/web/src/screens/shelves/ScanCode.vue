<script setup lang="ts">
/** The label's code by the camera: looked for some times a second until one is seen; what it says goes to the search. */
import { wrap } from 'comlink';
import { onMounted, onUnmounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { openCamera, type CameraProblem } from '../../camera.ts';
import type { Scanner } from '../../workers/scan.worker.ts';

const emit = defineEmits<{ read: [text: string]; close: [] }>();
const { t } = useI18n();
const video = ref<HTMLVideoElement>();
const problem = ref<CameraProblem>();
/** Pictures are looked at this wide: a label that fills a third of the picture is read, and it stays quick. */
const width = 640;
let stream: MediaStream | undefined;
let gone = false;
const worker = new Worker(new URL('../../workers/scan.worker.ts', import.meta.url), { type: 'module' });
const scanner = wrap<Scanner>(worker);

onMounted(async () => {
  const opened = await openCamera();
  if (typeof opened === 'string') {
    problem.value = opened;
    return;
  }
  stream = opened;
  const player = video.value;
  if (gone || !player) {
    stop();
    return;
  }
  player.srcObject = opened;
  await player.play();
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d', { willReadFrequently: true });
  const look = async (): Promise<void> => {
    if (gone || !context) return;
    canvas.width = width;
    canvas.height = Math.max(1, Math.round((width * player.videoHeight) / Math.max(1, player.videoWidth)));
    context.drawImage(player, 0, 0, canvas.width, canvas.height);
    const picture = context.getImageData(0, 0, canvas.width, canvas.height);
    const text = await scanner.read(picture.data, picture.width, picture.height);
    if (gone) return;
    if (text !== undefined && text !== '') emit('read', text);
    player.requestVideoFrameCallback(() => void look());
  };
  player.requestVideoFrameCallback(() => void look());
});
function stop(): void {
  for (const track of stream?.getTracks() ?? []) track.stop();
}
onUnmounted(() => {
  gone = true;
  stop();
  worker.terminate();
});
</script>

<template>
  <section class="sheet scan" data-test="scan" @keydown.esc="$emit('close')">
    <p v-if="problem" class="alarm" role="alert" data-test="scan-problem">{{ t(`shelves.scan.problem.${problem}`) }}</p>
    <template v-else>
      <video ref="video" muted playsinline />
      <p class="soft">{{ t('shelves.scan.help') }}</p>
    </template>
    <button type="button" class="push" @click="$emit('close')">{{ t('shelves.scan.close') }}</button>
  </section>
</template>

<style scoped>
.scan {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 12px;
}
video {
  width: 320px;
  max-width: 100%;
  border-radius: var(--radius);
  background: #000;
}
</style>
