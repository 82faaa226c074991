<script setup lang="ts">
/** A photo in little, from here while it waits to be sent; a press shows it whole. */
import { onUnmounted, ref, watch } from 'vue';
import { photoUrl } from '../stores/photos.ts';

const props = defineProps<{ photo: string; alt: string }>();
const url = ref('');
const letGo = (): void => {
  if (url.value.startsWith('blob:')) URL.revokeObjectURL(url.value);
};
watch(
  () => props.photo,
  async (id) => {
    const found = await photoUrl(id);
    letGo();
    url.value = found;
  },
  { immediate: true },
);
onUnmounted(letGo);
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
