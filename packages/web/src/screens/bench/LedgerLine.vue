<script setup lang="ts">
/** One line of the ledger. Its props are plain values or what never changes, so that a new entry redraws one line and not two hundred. */
import type { Entry } from '@veglia/core';
import { computed, nextTick, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import PhotoThumb from '../../parts/PhotoThumb.vue';
import type { EntryLine } from './entryWords.ts';

const props = defineProps<{
  entry: Entry;
  line: EntryLine;
  who: string;
  /** What it did to the probabilities, in words; empty: nothing worth a line. */
  effect: string;
  /** Why it was undone; undefined: it counts. */
  takenBack: string | undefined;
  /** Why it says nothing; empty: it is used. */
  unused: string;
  disagrees: boolean;
  unsent: boolean;
  mayTakeBack: boolean;
  lookingBack: boolean;
}>();
const emit = defineEmits<{ takeBack: [entry: Entry, reason: string]; asOf: [seq: number] }>();
const { t, d } = useI18n();

const photo = computed(() => {
  const { body } = props.entry;
  return body.kind === 'photo.added' || body.kind === 'teardown.taken' ? body.photo : undefined;
});

const asking = ref(false);
const reason = ref('');
const wrong = ref(false);
const field = ref<HTMLInputElement>();
async function ask(): Promise<void> {
  asking.value = true;
  reason.value = '';
  wrong.value = false;
  await nextTick();
  field.value?.focus();
}
function confirm(): void {
  if (reason.value.trim() === '') {
    wrong.value = true;
    return;
  }
  emit('takeBack', props.entry, reason.value.trim());
  asking.value = false;
}
</script>

<template>
  <li :class="{ gone: takenBack !== undefined }">
    <div class="text">
      <p class="title">
        {{ line.title }}<span v-if="line.thinkSo" class="soft"> ({{ t('bench.thinkSoMark') }})</span>
      </p>
      <p v-if="line.detail" class="soft detail">{{ line.detail }}</p>
      <PhotoThumb v-if="photo !== undefined" :photo="photo" :alt="line.title" />
      <p v-if="unused !== ''" class="alarm detail">{{ unused }}</p>
      <p v-if="disagrees" class="alarm detail" data-test="disagrees">{{ t('bench.disagrees') }}</p>
      <p v-if="takenBack !== undefined" class="detail back">{{ t('bench.takenBack', { reason: takenBack }) }}</p>
      <p class="soft small">
        <a :href="`#e${entry.seq}`" class="figure" :aria-label="t('bench.linkTo', { n: entry.seq })">{{ entry.seq }}</a>
        <span v-if="effect !== ''" class="effect figure" data-test="effect">{{ effect }}</span>
        {{ d(new Date(entry.at), 'minute') }} {{ who }}
        <span v-if="unsent" class="alarm" data-test="unsent">{{ t('bench.unsent') }}</span>
        <button v-if="lookingBack && entry.seq > 1" type="button" class="push" :data-as-of="entry.seq" @click="$emit('asOf', entry.seq)">
          {{ t('bench.asOf.look') }}
        </button>
      </p>
    </div>
    <button v-if="mayTakeBack" type="button" class="plain" :aria-label="`${t('bench.takeBack')}: ${line.title}`" @click="ask">
      {{ t('bench.takeBack') }}
    </button>
    <form v-if="asking" class="ask" @submit.prevent="confirm" @keydown.esc.stop="asking = false">
      <label :for="`why-${entry.id}`">{{ t('bench.takeBackWhy') }}</label>
      <input :id="`why-${entry.id}`" ref="field" v-model="reason" :aria-invalid="wrong" />
      <p v-if="wrong" class="alarm">{{ t('bench.takeBackNeeds') }}</p>
      <button type="submit" class="push full">{{ t('bench.takeBack') }}</button>
      <button type="button" class="plain" @click="asking = false">{{ t('common.cancel') }}</button>
    </form>
  </li>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  padding: 3px 0;
  border-top: 1px solid var(--line);
}
.effect {
  margin: 0 4px;
  color: var(--ink);
}
.text {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.title {
  display: inline;
  margin-right: 6px;
  font-weight: 600;
  line-height: 1.25;
}
.detail {
  display: inline;
  margin-right: 6px;
  font-size: 15px;
  line-height: 1.25;
}
.small {
  font-size: 14px;
  line-height: 1.25;
}
.gone .title {
  text-decoration: line-through;
  font-weight: 400;
}
.plain {
  font-size: 14px;
  align-self: start;
}
.ask {
  flex-basis: 100%;
  padding: 8px 0;
}
.ask input {
  width: 100%;
  min-height: 42px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
  margin: 4px 0 8px;
}
</style>
