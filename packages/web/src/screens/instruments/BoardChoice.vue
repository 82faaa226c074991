<script setup lang="ts">
/** Which board, and which picture of it. */
import { useI18n } from 'vue-i18n';
import type { BoardPictures } from './boardPictures.ts';

const props = defineProps<{ from: BoardPictures }>();
const { t } = useI18n();
const { offered, picked, board, pictures, pictureAt, picture } = props.from;
</script>

<template>
  <p v-if="offered.length === 0" class="soft">{{ t('walk.noBoard') }}</p>
  <p v-else class="row">
    <select v-if="offered.length > 1" v-model="picked" :aria-label="t('walk.board')" data-test="walk-board">
      <option v-for="(one, index) in offered" :key="one.id" :value="index === 0 ? '' : one.id">{{ one.number }}</option>
    </select>
    <span v-else>{{ offered[0]?.number }}</span>
    <select v-if="pictures && pictures.length > 1" v-model.number="pictureAt" :aria-label="t('walk.picture')">
      <option v-for="(one, index) in pictures" :key="index" :value="index">{{ one.name || index + 1 }}</option>
    </select>
  </p>
  <p v-if="pictures && !picture" class="soft">
    {{ t('walk.noMarks') }} <RouterLink :to="`/boards/${board}`">{{ t('walk.mark') }}</RouterLink>
  </p>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  margin: 0;
}
select {
  min-height: 42px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
</style>
