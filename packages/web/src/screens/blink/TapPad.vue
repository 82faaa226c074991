<script setup lang="ts">
/** Tapping along with the light: a key or the pad, one press a flash; K at a relay click. */
import { readTaps, type BlinkResult } from '@veglia/core';
import { computed, onMounted, onUnmounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';

const emit = defineEmits<{ read: [result: BlinkResult, clicks: readonly number[]] }>();
const { t } = useI18n();
const taps = ref<{ atS: number }[]>([]);
const clicks = ref<number[]>([]);
const pad = ref<HTMLElement>();
let began: number | undefined;
const nowS = (): number => (performance.now() - (began ??= performance.now())) / 1000;
/** The pause after the last tap is part of it: looked at again this often while nothing is tapped, milliseconds. */
const lookAgainMs = 500;
let timer: ReturnType<typeof setInterval> | undefined;

function tell(): void {
  if (taps.value.length > 0) emit('read', readTaps(taps.value, nowS()), clicks.value);
}
function tap(): void {
  taps.value = [...taps.value, { atS: nowS() }];
  tell();
}
function click(): void {
  clicks.value = [...clicks.value, Number(nowS().toFixed(2))];
  tell();
}
function back(): void {
  taps.value = taps.value.slice(0, -1);
  tell();
}
function anew(): void {
  taps.value = [];
  clicks.value = [];
  began = undefined;
  emit('read', readTaps([]), []);
  pad.value?.focus();
}
function onKey(event: KeyboardEvent): void {
  if (event.repeat || event.ctrlKey || event.altKey || event.metaKey) return;
  const key = event.key.toLowerCase();
  if (key === ' ' || key === 'b') tap();
  else if (key === 'k') click();
  else if (key === 'backspace') back();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
onMounted(() => {
  timer = setInterval(tell, lookAgainMs);
  pad.value?.focus();
});
onUnmounted(() => clearInterval(timer));
const count = computed(() => taps.value.length);
</script>

<template>
  <div class="tapping">
    <div ref="pad" class="pad" role="button" tabindex="0" data-test="tap-pad" @keydown="onKey" @pointerdown.prevent="(tap(), pad?.focus())">
      <strong>{{ t('blink.tapHere') }}</strong>
      <span class="figure big">{{ count }}</span>
      <span class="soft"><KeyCap label="B" /> {{ t('blink.tapKeys') }} <KeyCap label="K" /> {{ t('blink.clickKey') }}</span>
    </div>
    <p class="inline">
      <button type="button" class="push" :disabled="count === 0" @click="anew">{{ t('blink.anew') }}</button>
      <button type="button" class="plain" :disabled="count === 0" @click="back">{{ t('blink.lastAway') }}</button>
      <button type="button" class="plain" @click="click">{{ t('blink.clicked', { n: clicks.length }) }}</button>
    </p>
  </div>
</template>

<style scoped>
.tapping {
  display: grid;
  gap: 12px;
}
.pad {
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 4px;
  min-height: 150px;
  border: 2px dashed var(--accent);
  border-radius: var(--radius);
  background: var(--accent-wash);
  cursor: pointer;
  user-select: none;
  touch-action: none;
  text-align: center;
  padding: 8px;
}
.pad:active {
  border-style: solid;
}
.big {
  font-size: 40px;
  line-height: 1;
}
</style>
