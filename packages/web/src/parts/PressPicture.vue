<script setup lang="ts">
/** A picture that places are pressed on: told as shares of its width and height, and shown with their numbers or names. */
import type { Share } from '@veglia/core';

defineProps<{ url: string; alt: string; dots: readonly { readonly at: Share; readonly text: string }[] }>();
const emit = defineEmits<{ press: [at: Share]; size: [dots: readonly [width: number, height: number]] }>();
function loaded(event: Event): void {
  const { naturalWidth, naturalHeight } = event.currentTarget as HTMLImageElement;
  emit('size', [naturalWidth, naturalHeight]);
}
function press(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  if (box.width === 0 || box.height === 0) return;
  const share = (value: number): number => Math.min(Math.max(Number(value.toFixed(5)), 0), 1);
  emit('press', [share((event.clientX - box.left) / box.width), share((event.clientY - box.top) / box.height)]);
}
</script>

<template>
  <div class="whole" data-test="press-picture" @click="press">
    <img :src="url" :alt="alt" draggable="false" @load="loaded" />
    <span v-for="(dot, index) in dots" :key="index" class="dot" :style="{ left: `${dot.at[0] * 100}%`, top: `${dot.at[1] * 100}%` }">{{
      dot.text
    }}</span>
  </div>
</template>

<style scoped>
.whole {
  position: relative;
  border: 1px solid var(--line);
  cursor: crosshair;
}
img {
  display: block;
  width: 100%;
  user-select: none;
}
.dot {
  position: absolute;
  min-width: 20px;
  padding: 1px 4px;
  transform: translate(-50%, -50%);
  border: 1.5px solid #fff;
  border-radius: 10px;
  background: #16202b;
  color: #fff;
  font-size: 12px;
  line-height: 1.3;
  text-align: center;
  pointer-events: none;
}
</style>
