<script setup lang="ts">
/** What the chip answered, one press an answer. */
import { formatBytes, parseBytes, readChipCode, readSfdp, type FlashAim, type FlashDid, type FlashSession } from '@veglia/core';
import { computed, reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import TextField from '../../parts/TextField.vue';
import type { ProgrammerBench } from '../../stores/programmers.ts';
import ProgrammerWork from './ProgrammerWork.vue';

type Identified = Extract<FlashDid, { step: 'identified' }>;
const props = defineProps<{ of: FlashAim['of']; session: FlashSession; bench: ProgrammerBench }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const form = reactive({ chip: '', code: '', size: '' });
const wrong = ref<Partial<Record<'code' | 'size', string>>>({});
/** A table is a few hundred bytes; whoever saved more of it saved what is behind it. */
const mostTable = 65_536;
const results = ['found', 'other', 'not-detected'] as const satisfies readonly Identified['result'][];

/** What the programmer says is filled in; whether it is what is printed on the chip is looked at. */
watch(props.bench.run, (run) => {
  const found = run?.work === 'identify' ? run.result : undefined;
  if (found?.kind === 'found') Object.assign(form, { chip: found.chip, code: found.code ?? '', size: formatBytes(found.bytes) });
});
const plainCode = (): string => form.code.trim().toLowerCase().replace(/^0x/, '').replaceAll(' ', '');
/** What the code says by itself: maker, size, or that it can’t be one. */
const codeSays = computed((): string[] => {
  const code = plainCode();
  if (!/^(?:[0-9a-f]{2}){2,8}$/.test(code)) return [];
  const { contact, maker, damaged, bytes } = readChipCode(code);
  if (!contact) return [t('flash.code.noContact')];
  const size = form.size.trim() === '' ? undefined : parseBytes(form.size);
  return [
    [maker ?? t('flash.code.unknownMaker'), bytes === undefined ? '' : formatBytes(bytes)].filter(Boolean).join(', '),
    ...(damaged ? [t('flash.code.damaged')] : []),
    ...(bytes !== undefined && size !== undefined && bytes !== size ? [t('flash.code.otherSize', { size: formatBytes(bytes) })] : []),
  ];
});
const table = ref<HTMLInputElement>();
const tableSays = ref<{ readonly text: string; readonly refused: boolean }>();
/** The chip's own table, as a programmer saved it: its size is filled in. */
async function readTable(): Promise<void> {
  const [file] = table.value?.files ?? [];
  if (!file) return;
  const said = readSfdp(new Uint8Array(await file.slice(0, mostTable).arrayBuffer()));
  if (table.value) table.value.value = '';
  if ('refused' in said) return void (tableSays.value = { text: t(`flash.sfdp.refused.${said.refused}`), refused: true });
  form.size = formatBytes(said.bytes);
  const values = {
    size: formatBytes(said.bytes),
    erases: said.erases.map(({ bytes }) => formatBytes(bytes)).join(', '),
    address: t(`flash.sfdp.address.${said.addressBytes}`),
  };
  tableSays.value = { text: t('flash.sfdp.says', values), refused: false };
}
function record(result: Identified['result']): void {
  const code = plainCode();
  const bytes = form.size.trim() === '' ? undefined : parseBytes(form.size);
  wrong.value = {
    ...(code !== '' && !/^[0-9a-f]{2,16}$/.test(code) ? { code: t('flash.wrong.code') } : {}),
    ...(form.size.trim() !== '' && bytes === undefined ? { size: t('flash.wrong.size', { value: form.size }) } : {}),
  };
  if (Object.keys(wrong.value).length > 0) return;
  emit('did', {
    step: 'identified',
    of: props.of ?? 'this',
    result,
    ...(form.chip.trim() === '' ? {} : { chip: form.chip.trim() }),
    ...(code === '' ? {} : { code }),
    ...(bytes === undefined ? {} : { bytes }),
  });
}
</script>

<template>
  <form class="fields" @submit.prevent="record('found')">
    <ProgrammerWork class="wide" :session="session" work="identify" :of="of ?? 'this'" :bench="bench" />
    <TextField id="flash-chip" v-model="form.chip" :label="t('flash.field.chip')" :bounds="{ longest: 80 }" />
    <TextField
      id="flash-chip-size"
      v-model="form.size"
      :label="t('flash.field.size')"
      :error="wrong.size"
      :placeholder="t('flash.sizeHint')"
    />
    <TextField id="flash-code" v-model="form.code" :label="t('flash.field.code')" :error="wrong.code" />
    <p v-if="codeSays.length > 0" class="wide" data-test="code-says">{{ t('flash.code.says') }} {{ codeSays.join('. ') }}</p>
    <p v-if="session.opened.memory === 'spi-nor'" class="inline wide">
      <label class="push">
        {{ t('flash.sfdp.choose') }}
        <input ref="table" type="file" class="visually-hidden" data-test="sfdp-file" @change="readTable" />
      </label>
      <span v-if="tableSays" role="status" data-test="sfdp-says" :class="{ alarm: tableSays.refused }">{{ tableSays.text }}</span>
    </p>
    <p class="inline wide">
      <button
        v-for="(one, index) in results"
        :key="one"
        type="button"
        class="push"
        :class="{ full: one === 'found' }"
        :data-result="one"
        @click="record(one)"
      >
        <KeyCap :label="cap('answer', index)" />{{ t(`flash.detected.${one}`) }}
      </button>
    </p>
  </form>
</template>
