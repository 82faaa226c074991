<script setup lang="ts">
/** Figures of the strips that are in the set: kits are matched by them. */
import { useI18n } from 'vue-i18n';
import TextField from '../../parts/TextField.vue';

const figures = defineModel<Record<'strips' | 'leds' | 'lengthMm' | 'connector' | 'ledVolts', string>>({ required: true });
const { t } = useI18n();
</script>

<template>
  <fieldset class="fields quarters">
    <legend>{{ t('parts.stripsHead') }}</legend>
    <TextField id="strips-n" v-model="figures.strips" inputmode="numeric" :label="t('parts.stripsN')" />
    <TextField id="strips-leds" v-model="figures.leds" inputmode="numeric" :label="t('parts.leds')" />
    <TextField id="strips-length" v-model="figures.lengthMm" inputmode="decimal" :label="t('parts.lengthMm')" />
    <TextField id="strips-volts" v-model="figures.ledVolts" inputmode="decimal" :label="t('parts.ledVolts')" />
    <TextField id="strips-plug" v-model="figures.connector" :label="t('parts.connector')" />
  </fieldset>
</template>
