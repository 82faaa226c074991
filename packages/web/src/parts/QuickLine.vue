<script setup lang="ts">
/** One free line into observations: each is shown and taken by its key; what isn't understood becomes a note. */
import { readQuick, type CaseInput, type CompiledPack, type QuickBody, type QuickItem } from '@veglia/core';
import { computed, nextTick, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../names.ts';
import { canListen, dictated, listenOnce } from '../stores/hands.ts';
import KeyCap from './KeyCap.vue';

const props = defineProps<{ input: CaseInput; compiled: CompiledPack }>();
const emit = defineEmits<{ take: [bodies: QuickBody[], notes: string[]] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const line = ref('');
const left = ref<readonly QuickItem[]>([]);
const notes = ref<readonly string[]>([]);
const field = ref<HTMLInputElement>();
const list = ref<HTMLElement>();
const open = computed(() => left.value.length > 0 || notes.value.length > 0);

const sentence = ({ body }: QuickItem): string => {
  if (body.kind === 'blink.read') return t('quick.blink', { groups: body.groups.join('-'), n: body.cycles });
  if (body.kind === 'set.changed') return t('quick.stage', { stage: names.stage(body.stage ?? '') });
  const unsure = body.sure === 'think-so' ? ` (${t('bench.thinkSo')})` : '';
  return `${names.test(body.test, body.of)}: ${names.outcome(body.test, body.outcome)}${body.raw === undefined ? '' : `, ${body.raw}`}${unsure}`;
};

async function read(): Promise<void> {
  const { items, rest } = readQuick(line.value, props.input, props.compiled);
  left.value = items;
  notes.value = rest;
  await nextTick();
  if (open.value) list.value?.focus();
}
/** One by its number, or all of them; the line goes once nothing of it is left. */
function take(which: readonly QuickItem[], texts: readonly string[] = []): void {
  emit(
    'take',
    which.map(({ body }) => body),
    [...texts],
  );
  left.value = left.value.filter((one) => !which.includes(one));
  notes.value = notes.value.filter((text) => !texts.includes(text));
  if (!open.value) done();
}
function done(): void {
  line.value = '';
  left.value = [];
  notes.value = [];
  field.value?.focus();
}
function onKey(event: KeyboardEvent): void {
  const item = left.value[Number(event.key) - 1];
  if (event.key === 'Enter' || event.key.toLowerCase() === 'a') take(left.value, notes.value);
  else if (event.key === 'Escape') {
    left.value = [];
    notes.value = [];
    field.value?.focus();
  } else if (item) take([item]);
  else if (event.key.toLowerCase() === 'n' && notes.value.length > 0) take([], notes.value);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
const listening = ref(false);
async function dictate(): Promise<void> {
  listening.value = true;
  const heard = await listenOnce();
  listening.value = false;
  if (heard === undefined) return;
  line.value = heard;
  await read();
}
defineExpose({ focus: () => field.value?.focus() });
</script>

<template>
  <div class="quick" data-test="quick">
    <form @submit.prevent="read">
      <label for="quick-line" class="visually-hidden">{{ t('quick.label') }}</label>
      <input
        id="quick-line"
        ref="field"
        v-model="line"
        autocomplete="off"
        :placeholder="`${t('quick.label')} (Alt Q): ${t('quick.hint')}`"
      />
      <button type="submit" class="push" :disabled="line.trim() === ''">{{ t('quick.read') }}</button>
      <button v-if="canListen && dictated" type="button" class="push" :disabled="listening" data-test="dictate" @click="dictate">
        {{ listening ? t('quick.listening') : t('quick.speak') }}
      </button>
    </form>
    <div v-if="open" ref="list" class="found" tabindex="-1" :aria-label="t('quick.found')" role="group" @keydown="onKey">
      <button v-for="(item, index) in left" :key="item.text" type="button" class="item" @click="take([item])">
        <KeyCap :label="String(index + 1)" /> <span>{{ sentence(item) }}</span> <span class="soft">“{{ item.text }}”</span>
      </button>
      <button v-if="notes.length > 0" type="button" class="item note" @click="take([], notes)">
        <KeyCap label="N" /> <span>{{ t('quick.asNote') }}: “{{ notes.join('; ') }}”</span>
      </button>
      <p class="line">
        <button type="button" class="push full" @click="take(left, notes)"><KeyCap label="↵" /> {{ t('quick.all') }}</button>
        <button type="button" class="plain" @click="done"><KeyCap label="Esc" /> {{ t('common.cancel') }}</button>
      </p>
    </div>
  </div>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
}
label {
  grid-column: 1 / -1;
  font-size: 15px;
  color: var(--ink-soft);
}
input {
  min-width: 0;
  min-height: 44px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
}
.found {
  display: grid;
  gap: 6px;
  margin-top: 8px;
  padding: 8px;
  border: 1.5px solid var(--accent);
  border-radius: var(--radius);
}
.item {
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  min-height: 42px;
  padding: 4px 10px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
  text-align: left;
  font-weight: 600;
  cursor: pointer;
}
.item .soft,
.note {
  font-weight: 400;
}
.line {
  display: flex;
  gap: 8px;
}
</style>
