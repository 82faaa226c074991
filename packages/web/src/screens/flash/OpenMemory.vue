<script setup lang="ts">
/** Which memory, why it is suspected, what is to become of it. */
import { flashPlans, flashWhys, memories, memoryAreas, parseBytes, type FlashDid, type MemoryArea } from '@veglia/core';
import { computed, reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import TicksField from '../../parts/TicksField.vue';

type Opened = Extract<FlashDid, { step: 'opened' }>;
const props = defineProps<{ before?: Opened | undefined }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const form = reactive({
  memory: props.before?.memory ?? 'spi-nor',
  name: props.before?.name ?? '',
  marking: props.before?.marking ?? '',
  size: '',
  areas: [...(props.before?.areas ?? ['whole'])] as MemoryArea[],
  why: props.before?.why ?? 'rails-good-no-start',
  plan: props.before?.plan ?? 'rewrite',
  companions: (props.before?.companions ?? []).join(', '),
});
const wrong = ref<Partial<Record<'name' | 'size' | 'areas', string>>>({});
const emmc = computed(() => form.memory === 'emmc');
const emmcAreas = memoryAreas.filter((one) => one !== 'whole');
watch(emmc, (is) => (form.areas = is ? [...emmcAreas] : ['whole']));

function record(): void {
  const bytes = form.size.trim() === '' ? undefined : parseBytes(form.size);
  wrong.value = {
    ...(form.name.trim() === '' ? { name: t('flash.wrong.name') } : {}),
    ...(form.size.trim() !== '' && bytes === undefined ? { size: t('flash.wrong.size', { value: form.size }) } : {}),
    ...(form.areas.length === 0 ? { areas: t('flash.wrong.areas') } : {}),
  };
  if (Object.keys(wrong.value).length > 0) return;
  const companions = form.companions
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');
  const sizes = bytes === undefined ? props.before?.sizes : { [emmc.value ? 'user' : 'whole']: bytes };
  emit('did', {
    step: 'opened',
    memory: form.memory,
    name: form.name.trim(),
    areas: form.areas,
    why: form.why,
    plan: form.plan,
    ...(form.marking.trim() === '' ? {} : { marking: form.marking.trim() }),
    ...(sizes === undefined ? {} : { sizes }),
    ...(companions.length === 0 ? {} : { companions }),
  });
}
</script>

<template>
  <form class="fields" data-test="open-memory" @submit.prevent="record">
    <ChoiceField
      id="flash-memory"
      v-model="form.memory"
      :label="t('flash.field.memory')"
      :options="memories.map((value) => ({ value, label: t(`memory.${value}`) }))"
    />
    <TextField id="flash-name" v-model="form.name" :label="t('flash.field.name')" :error="wrong.name" placeholder="U402" />
    <TextField id="flash-marking" v-model="form.marking" :label="t('flash.field.marking')" />
    <TextField id="flash-size" v-model="form.size" :label="t('flash.field.size')" :error="wrong.size" :placeholder="t('flash.sizeHint')" />
    <TicksField
      v-if="emmc"
      v-model="form.areas"
      :label="t('flash.field.areas')"
      :options="emmcAreas.map((value) => ({ value, label: t(`flash.area.${value}`) }))"
    />
    <p v-if="wrong.areas" class="alarm wide">{{ wrong.areas }}</p>
    <ChoiceField
      id="flash-why"
      v-model="form.why"
      :label="t('flash.field.why')"
      :options="flashWhys.map((value) => ({ value, label: t(`flash.why.${value}`) }))"
    />
    <ChoiceField
      id="flash-plan"
      v-model="form.plan"
      :label="t('flash.field.plan')"
      :options="flashPlans.map((value) => ({ value, label: t(`flash.plan.${value}`) }))"
    />
    <TextField id="flash-companions" v-model="form.companions" class="wide" :label="t('flash.field.companions')" />
    <button type="submit" class="push full" data-test="start-session">{{ t(before ? 'flash.record' : 'flash.open') }}</button>
  </form>
</template>
