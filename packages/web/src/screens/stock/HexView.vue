<script setup lang="ts">
/** Bytes of an image, a page at a time, beside those of another: gigabytes have no scroll bar that could point at a byte. */
import type { Image } from '@veglia/contract';
import { formatBytes } from '@veglia/core';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import TextField from '../../parts/TextField.vue';
import { offsetOf } from './offset.ts';

const props = defineProps<{ image: Image; other?: Image | undefined; places: readonly { readonly from: number; readonly to: number }[] }>();
const { t } = useI18n();
const rowBytes = 16;
const pageBytes = rowBytes * 24;
const at = ref(0);
const asked = ref('0');
const wrong = ref('');
const pages = ref<readonly Uint8Array[]>([]);
const size = computed(() => Math.max(props.image.size, props.other?.size ?? 0));
const hex = (value: number, digits: number): string => value.toString(16).padStart(digits, '0');

function goTo(offset: number): void {
  at.value = Math.max(0, Math.min(offset - (offset % rowBytes), size.value - 1 - ((size.value - 1) % rowBytes)));
  asked.value = `0x${hex(at.value, 1)}`;
}
function goAsked(): void {
  const offset = offsetOf(asked.value, size.value);
  wrong.value = offset === undefined ? t('stock.hex.wrong', { last: `0x${hex(size.value - 1, 1)}` }) : '';
  if (offset !== undefined) goTo(offset);
}
const nextPlace = computed(() => props.places.find(({ from }) => from >= at.value + pageBytes));
const placeBefore = computed(() => props.places.findLast(({ from }) => from < at.value));

watch(
  [() => props.image.id, () => props.other?.id, at],
  async () => {
    const from = at.value;
    const both = [props.image, ...(props.other ? [props.other] : [])];
    try {
      const read = await Promise.all(both.map((one) => api.imageBytes(one.id, from, Math.min(from + pageBytes, one.size))));
      if (at.value === from) pages.value = read;
      wrong.value = '';
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      wrong.value = t('stock.away');
    }
  },
  { immediate: true },
);
watch(
  () => props.places[0]?.from,
  (first) => first !== undefined && goTo(first),
);
const text = (byte: number | undefined): string =>
  byte === undefined ? ' ' : byte >= 0x20 && byte < 0x7f ? String.fromCharCode(byte) : '·';
const rows = computed(() =>
  Array.from({ length: Math.ceil(Math.max(0, ...pages.value.map(({ length }) => length)) / rowBytes) }, (_, row) => ({
    offset: at.value + row * rowBytes,
    sides: pages.value.map((page) => Array.from({ length: rowBytes }, (_, column) => page[row * rowBytes + column])),
  })),
);
defineExpose({ goTo });
const differs = (sides: readonly (readonly (number | undefined)[])[], column: number): boolean =>
  sides.length > 1 && sides[0]?.[column] !== sides[1]?.[column];
</script>

<template>
  <div class="hexview" data-test="hex">
    <form class="inline" @submit.prevent="goAsked">
      <TextField id="hex-at" v-model="asked" :label="t('stock.hex.offset')" :error="wrong || undefined" />
      <button type="submit" class="push">{{ t('stock.hex.go') }}</button>
      <button type="button" class="push" :disabled="at === 0" @click="goTo(at - pageBytes)">{{ t('stock.hex.before') }}</button>
      <button type="button" class="push" :disabled="at + pageBytes >= size" data-test="hex-next" @click="goTo(at + pageBytes)">
        {{ t('stock.hex.next') }}
      </button>
      <template v-if="other">
        <button type="button" class="push" :disabled="!placeBefore" @click="placeBefore && goTo(placeBefore.from)">
          {{ t('stock.hex.placeBefore') }}
        </button>
        <button type="button" class="push" :disabled="!nextPlace" data-test="hex-place" @click="nextPlace && goTo(nextPlace.from)">
          {{ t('stock.hex.nextPlace') }}
        </button>
      </template>
      <span class="soft">{{ t('stock.hex.of', { size: formatBytes(size) }) }}</span>
    </form>
    <div class="scroll" tabindex="0" :aria-label="t('stock.hex.label')">
      <table class="reading">
        <tbody>
          <tr v-for="{ offset, sides } in rows" :key="offset">
            <th scope="row">{{ hex(offset, 8) }}</th>
            <template v-for="(side, index) in sides" :key="index">
              <td class="bytes">
                <span v-for="(byte, column) in side" :key="column" :class="{ differs: differs(sides, column) }">{{
                  byte === undefined ? '  ' : hex(byte, 2)
                }}</span>
              </td>
              <td v-if="!other" class="text">{{ side.map(text).join('') }}</td>
            </template>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.hexview {
  display: grid;
  gap: 8px;
}
.inline {
  flex-wrap: wrap;
  align-items: end;
}
.scroll {
  overflow-x: auto;
}
table {
  font-size: 14px;
  border-collapse: collapse;
}
th {
  padding-right: 14px;
  font-weight: 400;
  color: var(--ink-soft);
}
.bytes {
  padding-right: 18px;
  white-space: pre;
}
.bytes span {
  padding: 0 2px;
}
.bytes span:nth-child(8) {
  margin-right: 8px;
}
.differs {
  background: var(--alarm-wash);
  font-weight: 700;
  text-decoration: underline;
}
.text {
  white-space: pre;
}
</style>
