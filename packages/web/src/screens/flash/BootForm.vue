<script setup lang="ts">
/** Boot registers of an eMMC: read from the old chip, set on the new one. */
import { readBootConfig, type BootConfig, type FlashDid, type FlashSession } from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import TextField from '../../parts/TextField.vue';
import { cap } from '../bench/keymap.ts';

type Did = Extract<FlashDid, { step: 'boot-config' }>;
const props = defineProps<{ of: Did['of']; session: FlashSession }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const fields = ['partition', 'bus', 'reset'] as const;
const old = computed(() => props.session.did.findLast((one): one is Did => one.step === 'boot-config' && one.of === 'this'));
const form = reactive<Record<(typeof fields)[number], string>>({ partition: '', bus: '', reset: '' });
const wrong = ref<Partial<Record<(typeof fields)[number], string>>>({});
const plain = (text: string): string => text.trim().toLowerCase().replace(/^0x/, '');
const isByte = (text: string): boolean => /^[0-9a-f]{2}$/.test(plain(text));

function says(config: BootConfig): string {
  const { boots, acknowledges, reset } = readBootConfig(config);
  return [t(`flash.boot.boots.${boots}`), ...(acknowledges ? [t('flash.boot.acknowledges')] : []), t(`flash.boot.reset.${reset}`)].join(
    ', ',
  );
}
const typed = computed((): BootConfig | undefined =>
  fields.every((one) => isByte(form[one]))
    ? { partition: plain(form.partition), bus: plain(form.bus), reset: plain(form.reset) }
    : undefined,
);
function record(): void {
  wrong.value = Object.fromEntries(fields.flatMap((one) => (isByte(form[one]) ? [] : [[one, t('flash.wrong.register')]])));
  if (typed.value) emit('did', { step: 'boot-config', of: props.of, ...typed.value });
}
function alike(): void {
  if (old.value) emit('did', { ...old.value, of: 'new-one' });
}
</script>

<template>
  <div class="boot">
    <p v-if="of === 'new-one' && old" data-test="boot-old">
      {{ t('flash.boot.old', { partition: old.partition, bus: old.bus, reset: old.reset }) }} {{ says(old) }}.
    </p>
    <button v-if="of === 'new-one' && old" type="button" class="push full" data-result="alike" @click="alike">
      <KeyCap :label="cap('answer', 0)" />{{ t('flash.boot.alike') }}
    </button>
    <form class="fields" @submit.prevent="record">
      <TextField
        v-for="one in fields"
        :id="`boot-${one}`"
        :key="one"
        v-model="form[one]"
        :label="t(`flash.boot.field.${one}`)"
        :error="wrong[one]"
        placeholder="00"
      />
      <p v-if="typed" class="wide" data-test="boot-says">{{ says(typed) }}.</p>
      <button type="submit" class="push bottom" :class="{ full: of === 'this' }" data-test="record-step">
        <KeyCap v-if="of === 'this'" :label="cap('confirm')" />{{ t('flash.record') }}
      </button>
    </form>
  </div>
</template>

<style scoped>
.boot {
  display: grid;
  gap: 10px;
}
</style>
