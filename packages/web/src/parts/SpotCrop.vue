<script setup lang="ts">
/** The part of a picture around one spot, the spot ringed in its middle. */
import type { BoardSpot } from '@veglia/core';
import { usePhotoAddress } from './photoAddress.ts';

const props = defineProps<{ photo: string; spot: BoardSpot; title: string }>();
const url = usePhotoAddress(() => props.photo);
</script>

<template>
  <figure data-test="spot">
    <span class="view">
      <img v-if="url" :src="url" :alt="title" :style="{ transform: `translate(${-spot[0] * 100}%, ${-spot[1] * 100}%)` }" />
      <span class="ring" aria-hidden="true" />
    </span>
    <figcaption>{{ title }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  width: 200px;
  margin: 0;
}
.view {
  position: relative;
  display: block;
  height: 104px;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--sunk);
}
/* A third of the board across: enough around it to find the place again. */
img {
  position: absolute;
  top: 50%;
  left: 50%;
  width: 600px;
  max-width: none;
}
.ring {
  position: absolute;
  top: 50%;
  left: 50%;
  width: 34px;
  height: 34px;
  transform: translate(-50%, -50%);
  border: 4px solid #ffb000;
  border-radius: 50%;
  box-shadow: 0 0 0 2px #16202b;
}
figcaption {
  overflow: hidden;
  font-size: 14px;
  line-height: 1.25;
  white-space: nowrap;
  text-overflow: ellipsis;
}
</style>
