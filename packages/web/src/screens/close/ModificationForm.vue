<script setup lang="ts">
/** What was built into the set: wires with a drawing, how to undo it, what is lost. Goes on a label inside the set. */
import { boundsOf, modificationSvg } from '@veglia/contract';
import { bodySchemas, misleadingWires, readWires, type Body, type Wire } from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import TextField from '../../parts/TextField.vue';

const emit = defineEmits<{ write: [body: Body] }>();
const { t } = useI18n();
const empty = { name: '', wires: '', undo: '', lost: '', plugsKept: true, noStandby: false };
const form = reactive({ ...empty });
const errors = reactive<{ name?: string; undo?: string }>({});
const { shape } = bodySchemas['modification.recorded'];
const bounds = { name: boundsOf(shape.name), undo: boundsOf(shape.undo), lost: boundsOf(shape.lost) };
const open = ref(false);
/** As typed so far, or the line that can’t be read. */
const read = computed((): { readonly wires: readonly Wire[] } | { readonly wrong: string } => {
  try {
    return { wires: readWires(form.wires) };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { wrong: error.message };
  }
});
const wires = computed(() => ('wires' in read.value ? read.value.wires : []));
const drawing = computed(() => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(modificationSvg(wires.value))}`);
const misleading = computed(() => misleadingWires(wires.value));

function record(): void {
  delete errors.name;
  delete errors.undo;
  if (form.name.trim() === '') errors.name = t('close.modification.noName');
  if (form.undo.trim() === '') errors.undo = t('close.modification.noUndo');
  if (Object.keys(errors).length > 0 || 'wrong' in read.value) return;
  emit('write', {
    kind: 'modification.recorded',
    v: 1,
    name: form.name.trim(),
    wires: wires.value.map((one) => ({ ...one })),
    undo: form.undo.trim(),
    ...(form.lost.trim() === '' ? {} : { lost: form.lost.trim() }),
    plugsKept: form.plugsKept,
    ...(form.noStandby ? { noStandby: true } : {}),
  });
  Object.assign(form, empty);
  open.value = false;
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t('close.modification.title') }}</h2>
    <button v-if="!open" type="button" class="push" data-test="add-modification" @click="open = true">
      {{ t('close.modification.add') }}
    </button>
    <form v-else class="fields" novalidate data-test="modification" @submit.prevent="record">
      <TextField
        id="mod-name"
        v-model="form.name"
        class="wide"
        :bounds="bounds.name"
        :label="t('close.modification.name')"
        :error="errors.name"
      />
      <TextField
        id="mod-wires"
        v-model="form.wires"
        class="wide"
        :rows="3"
        :label="t('close.modification.wires')"
        placeholder="J3.1 > CN5.2: 12 V, red"
        :error="'wrong' in read ? t('close.modification.wrong', { line: read.wrong }) : undefined"
      />
      <img v-if="wires.length > 0" :src="drawing" class="wide" :alt="t('close.modification.drawing', wires.length)" data-test="drawing" />
      <p v-for="wire in misleading" :key="`${wire.from}${wire.to}`" class="alarm wide" data-test="misleads">
        {{ t('close.modification.misleads', { carries: wire.carries, colour: wire.colour }) }}
      </p>
      <TextField
        id="mod-undo"
        v-model="form.undo"
        class="wide"
        :rows="2"
        :bounds="bounds.undo"
        :label="t('close.modification.undo')"
        :error="errors.undo"
      />
      <TextField id="mod-lost" v-model="form.lost" class="wide" :bounds="bounds.lost" :label="t('close.modification.lost')" />
      <el-checkbox v-model="form.plugsKept" class="wide">{{ t('close.modification.plugsKept') }}</el-checkbox>
      <el-checkbox v-model="form.noStandby" class="wide" data-test="no-standby">{{ t('close.modification.noStandby') }}</el-checkbox>
      <button type="submit" class="push full">{{ t('close.modification.record') }}</button>
    </form>
  </section>
</template>

<style scoped>
img {
  width: 100%;
  border: 1px solid var(--line);
}
</style>
