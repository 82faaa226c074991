<script setup lang="ts">
/** What is wrong: the customer's words, the rows they mean, when it shows, and the light. */
import type { CompiledPack } from '@veglia/core';
import { codeInWords, words } from '@veglia/contract';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';
import { textOf } from '../../stores/packs.ts';
import { textBounds, type IntakeForm } from './intake.ts';
import { symptomSearch } from './symptomSearch.ts';
import type { Taken } from '../blink/reading.ts';
import type { ErrorOf } from './intake.ts';

const props = defineProps<{ form: IntakeForm; compiled: CompiledPack; errorOf: ErrorOf }>();
const { t } = useI18n();
const search = computed(() => symptomSearch(props.compiled.pack.symptoms));
const typed = ref('');
const symptoms = computed(() =>
  search.value.find(typed.value).flatMap((id) => props.compiled.pack.symptoms.find((one) => one.id === id) ?? []),
);
const BlinkReader = defineAsyncComponent(() => import('../blink/BlinkReader.vue'));
const reading = ref(false);
function take(taken: Taken): void {
  props.form.blink = codeInWords(taken, words.en);
  props.form.blinkTaken = taken;
  reading.value = false;
}
function typedOver(): void {
  props.form.blinkTaken = null;
}
const often = computed(() => (['always', 'sometimes'] as const).map((value) => ({ value, label: t(`often.${value}`) })));
const temperature = computed(() => (['cold', 'warm', 'any'] as const).map((value) => ({ value, label: t(`temperature.${value}`) })));
</script>

<template>
  <fieldset class="sheet fields">
    <legend>{{ t('counter.wrong') }} <kbd>Alt 1</kbd></legend>
    <FormField id="symptoms" class="wide" :label="t('counter.symptoms')" :error="errorOf('symptoms')">
      <el-select
        id="symptoms"
        v-model="form.symptoms"
        multiple
        filterable
        default-first-option
        :filter-method="(now: string) => (typed = now)"
        :placeholder="t('counter.symptomsHint')"
        data-test="symptoms"
        @visible-change="(open: boolean) => open || (typed = '')"
      >
        <el-option v-for="symptom in symptoms" :key="symptom.id" :value="symptom.id" :label="textOf(symptom.name)">
          {{ textOf(symptom.name) }} <span class="soft">({{ textOf(symptom.said) }})</span>
        </el-option>
      </el-select>
    </FormField>
    <TextField id="words" v-model="form.words" :bounds="textBounds.words" class="wide" :label="t('counter.words')" :rows="2" />
    <ChoiceField id="often" v-model="form.often" class="short" :label="t('counter.often')" :options="often" :none="t('counter.notSaid')" />
    <ChoiceField
      id="temperature"
      v-model="form.temperature"
      class="short"
      :label="t('counter.temperature')"
      :options="temperature"
      :none="t('counter.notSaid')"
    />
    <TextField id="since" v-model="form.since" :bounds="textBounds.since" class="short" :label="t('counter.since')" />
    <TextField id="after" v-model="form.after" :bounds="textBounds.after" class="short" :label="t('counter.after')" />
    <TextField
      id="blink"
      v-model="form.blink"
      :label="t('counter.blink')"
      :error="errorOf('blink')"
      :placeholder="t('counter.blinkHint')"
      @update:model-value="typedOver"
    />
    <div class="field bottom inline">
      <el-checkbox v-model="form.blinkTwice" :disabled="form.blink.trim() === '' || form.blinkTaken !== null">{{
        t('counter.blinkTwice')
      }}</el-checkbox>
      <button type="button" class="plain" :aria-expanded="reading" data-test="read-light" @click="reading = !reading">
        {{ t('bench.readLight') }}
      </button>
    </div>
    <BlinkReader
      v-if="reading"
      class="wide"
      :compiled="compiled"
      :family="form.family || undefined"
      :layouts="[]"
      :take-label="t('blink.take')"
      @take="take"
    />
  </fieldset>
</template>
