<script setup lang="ts">
/**
 * Cards under the names of their shelves. A long list is drawn only where it is looked at (window scroll); a short one whole, so that the
 * browser's own find and print see all of it.
 */
import { useWindowVirtualizer } from '@tanstack/vue-virtual';
import { computed, onMounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Names } from '../../names.ts';
import type { ListRow } from './search.ts';
import SetCard from './SetCard.vue';

const props = defineProps<{ rows: readonly ListRow[]; names: Names; placeName: (place: string) => string }>();
const { t } = useI18n();
/** Rows that are drawn whole; a row is some 30 nodes (value of ours). */
const mostWhole = 60;
const whole = computed(() => props.rows.length <= mostWhole);
const list = ref<HTMLElement>();
const top = ref(0);
/** Guesses, pixels, until a row has been drawn and measured. */
const [cardHeight, headHeight] = [74, 40];
const virtual = useWindowVirtualizer(
  computed(() => ({
    count: whole.value ? 0 : props.rows.length,
    estimateSize: (index: number) => (props.rows[index]?.kind === 'place' ? headHeight : cardHeight),
    getItemKey: (index: number) => props.rows[index]?.key ?? index,
    overscan: 6,
    scrollMargin: top.value,
  })),
);
const measureTop = (): void => {
  top.value = list.value ? list.value.getBoundingClientRect().top + window.scrollY : 0;
};
onMounted(measureTop);
watch(() => props.rows.length, measureTop, { flush: 'post' });
const drawn = computed(() =>
  whole.value
    ? props.rows.map((row) => ({ row, index: 0, start: undefined }))
    : virtual.value.getVirtualItems().flatMap(({ index, start }) => {
        const row = props.rows[index];
        return row ? [{ row, index, start: start - top.value }] : [];
      }),
);
const measure = (element: unknown): void => {
  if (!whole.value && element instanceof HTMLElement) virtual.value.measureElement(element);
};
</script>

<template>
  <ul ref="list" :class="{ long: !whole }" :style="whole ? undefined : { height: `${virtual.getTotalSize()}px` }">
    <li
      v-for="{ row, index, start } in drawn"
      :key="row.key"
      :ref="measure"
      :data-index="index"
      :data-place="row.place"
      :class="row.kind"
      :style="start === undefined ? undefined : { transform: `translateY(${start}px)` }"
    >
      <h2 v-if="row.kind === 'place'">
        {{ placeName(row.place) }}<span class="soft">, {{ t('shelves.sets', row.n) }}</span>
      </h2>
      <SetCard v-else :card="row.card" :names="names" />
    </li>
  </ul>
</template>

<style scoped>
.long {
  position: relative;
}
.long > li {
  position: absolute;
  top: 0;
  left: 0;
  width: 100%;
}
li.card {
  padding-bottom: 4px;
}
li.place {
  padding: 8px 0 4px;
}
li.place h2 {
  margin: 0;
  border-bottom: 4px solid var(--sunk);
}
</style>
