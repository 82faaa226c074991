<script setup lang="ts">
/** Whose set it is. Those known already are found while typing, so that nobody is there twice. */
import type { KnownCustomer } from '@veglia/contract';
import { paperLanguages } from '@veglia/core';
import { onUnmounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import { textBounds, type ErrorOf, type IntakeForm } from './intake.ts';

const props = defineProps<{ form: IntakeForm; errorOf: ErrorOf; pauseMs: number }>();
const { t } = useI18n();
const known = ref<KnownCustomer[]>([]);
let timer: ReturnType<typeof setTimeout> | undefined;

watch([() => props.form.name, () => props.form.contact, () => props.form.customerId, () => props.form.ownSet], () => {
  clearTimeout(timer);
  known.value = [];
  const { ownSet, customerId, name, contact } = props.form;
  if (!ownSet && customerId === '') timer = setTimeout(() => void lookUp(name, contact), props.pauseMs);
});
onUnmounted(() => clearTimeout(timer));

async function lookUp(name: string, contact: string): Promise<void> {
  try {
    const reply = await api.searchCustomers(name.trim(), contact.trim());
    // Typed on in the meantime: the next answer is on its way.
    const now = props.form;
    if (reply.ok && name === now.name && contact === now.contact && now.customerId === '') known.value = reply.value;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
}
function take(customer: KnownCustomer): void {
  Object.assign(props.form, { customerId: customer.id, name: customer.name, contact: customer.contact });
}
function letGo(): void {
  props.form.customerId = '';
}
</script>

<template>
  <fieldset class="sheet fields">
    <legend>{{ t('counter.customer') }} <kbd>Alt 3</kbd></legend>
    <div class="field own">
      <el-checkbox v-model="form.ownSet">{{ t('counter.ownSet') }}</el-checkbox>
    </div>
    <ChoiceField
      id="customer-language"
      v-model="form.language"
      :label="t('counter.language')"
      :none="t('counter.languageShop')"
      :options="paperLanguages.map((value) => ({ value, label: t(`language.${value}`) }))"
    />
    <TextField
      id="name"
      v-model="form.name"
      :bounds="textBounds.name"
      :label="t('counter.name')"
      :error="errorOf('name')"
      :disabled="form.ownSet || form.customerId !== ''"
    />
    <TextField
      id="contact"
      v-model="form.contact"
      :bounds="textBounds.contact"
      :label="t('counter.contact')"
      :disabled="form.ownSet || form.customerId !== ''"
    />
    <p v-if="form.customerId !== ''" class="field wide inline" data-test="known-customer">
      {{ t('counter.known.taken') }}
      <button type="button" class="plain" @click="letGo">{{ t('counter.known.other') }}</button>
    </p>
    <div v-else-if="known.length > 0" class="field wide inline" data-test="known">
      <span class="grouplabel" role="status">{{ t('counter.known.title') }}</span>
      <button v-for="one in known" :key="one.id" type="button" class="push" @click="take(one)">
        {{ one.name }} <span class="soft">{{ one.contact }}, {{ t('counter.known.jobs', one.jobs) }}</span>
      </button>
    </div>
  </fieldset>
</template>

<style scoped>
.own {
  align-self: end;
}
.inline .grouplabel {
  flex: 1 0 100%;
}
</style>
