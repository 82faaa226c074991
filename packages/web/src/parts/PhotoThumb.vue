<script setup lang="ts">
/** A photo in little, from here while it waits to be sent; a press shows it whole. */
import { usePhotoAddress } from './photoAddress.ts';

const props = defineProps<{ photo: string; alt: string }>();
const url = usePhotoAddress(() => props.photo);
</script>

<template>
  <a v-if="url" :href="url" target="_blank"><img :src="url" :alt="alt" loading="lazy" /></a>
</template>

<style scoped>
img {
  max-width: 100%;
  max-height: 120px;
  border-radius: var(--radius);
}
</style>
