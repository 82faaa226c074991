<script setup lang="ts">
/** Supply of the chip as measured, and what the programmer is set to. */
import { flashFeeds, parseQuantity, type FlashDid } from '@veglia/core';
import { reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import FormField from '../../parts/FormField.vue';
import TicksField from '../../parts/TicksField.vue';
import UnitInput from '../../parts/UnitInput.vue';

const props = defineProps<{ before: Extract<FlashDid, { step: 'supply' }> | undefined }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const form = reactive({
  core: String(props.before?.coreVolts ?? ''),
  io: String(props.before?.ioVolts ?? ''),
  programmer: String(props.before?.programmerVolts ?? ''),
  feeds: [...(props.before?.feeds ?? ['programmer'])] as (typeof flashFeeds)[number][],
});
const wrong = ref<Partial<Record<'core' | 'io' | 'programmer' | 'feeds', string>>>({});
const volts = (text: string): number | undefined => {
  const value = parseQuantity(text, 'V');
  return value !== undefined && value >= 0 && value <= 30 ? value : undefined;
};

function record(): void {
  const [core, io, programmer] = [volts(form.core), volts(form.io), volts(form.programmer)];
  const no = t('flash.wrong.volts');
  wrong.value = {
    ...(form.core.trim() !== '' && core === undefined ? { core: no } : {}),
    ...(io === undefined ? { io: no } : {}),
    ...(programmer === undefined ? { programmer: no } : {}),
    ...(form.feeds.length === 0 ? { feeds: t('flash.wrong.feeds') } : {}),
  };
  if (io === undefined || programmer === undefined || Object.keys(wrong.value).length > 0) return;
  emit('did', {
    step: 'supply',
    ioVolts: io,
    programmerVolts: programmer,
    feeds: form.feeds,
    ...(core === undefined ? {} : { coreVolts: core }),
  });
}
</script>

<template>
  <form class="fields" @submit.prevent="record">
    <FormField id="flash-io" :label="t('flash.field.io')" v-bind="wrong.io ? { error: wrong.io } : {}">
      <UnitInput id="flash-io" v-model="form.io" unit="V" wide inputmode="decimal" data-test="io-volts" />
    </FormField>
    <FormField id="flash-core" :label="t('flash.field.core')" v-bind="wrong.core ? { error: wrong.core } : {}">
      <UnitInput id="flash-core" v-model="form.core" unit="V" wide inputmode="decimal" />
    </FormField>
    <FormField id="flash-programmer" :label="t('flash.field.programmer')" v-bind="wrong.programmer ? { error: wrong.programmer } : {}">
      <UnitInput id="flash-programmer" v-model="form.programmer" unit="V" wide inputmode="decimal" data-test="programmer-volts" />
    </FormField>
    <TicksField
      v-model="form.feeds"
      :label="t('flash.field.feeds')"
      :options="flashFeeds.map((value) => ({ value, label: t(`flash.feeds.${value}`) }))"
    />
    <p v-if="wrong.feeds" class="alarm wide">{{ wrong.feeds }}</p>
    <button type="submit" class="push full" data-test="record-step"><KeyCap :label="cap('confirm')" />{{ t('flash.record') }}</button>
  </form>
</template>
