<script setup lang="ts">
/** What was agreed: limits, consents, what stays here, and what the customer thinks it is. */
import type { ShopSettings } from '@veglia/contract';
import { accessories, theorySources, type CompiledPack } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';
import TicksField from '../../parts/TicksField.vue';
import { textOf } from '../../stores/packs.ts';
import { textBounds, type ErrorOf, type IntakeForm } from './intake.ts';

const props = defineProps<{ form: IntakeForm; compiled: CompiledPack; shop: ShopSettings; errorOf: ErrorOf }>();
const { t } = useI18n();
const warranty = computed(() => (['unknown', 'running', 'over'] as const).map((value) => ({ value, label: t(`warranty.${value}`) })));
const mayLoseData = computed(() => (['yes', 'no'] as const).map((value) => ({ value, label: t(`mayLoseData.${value}`) })));
const accessoryTicks = computed(() => accessories.map((value) => ({ value, label: t(`core.accessory.${value}`) })));
const sources = computed(() => theorySources.map((value) => ({ value, label: t(`theorySource.${value}`) })));
const assemblies = computed((): { value: string; label: string }[] =>
  props.compiled.pack.assemblies.filter(({ kind }) => kind === 'assembly').map(({ id, name }) => ({ value: id, label: textOf(name) })),
);
/** A picker that was emptied says null. */
const promised = computed<string | null>({
  get: () => props.form.promised,
  set: (day) => (props.form.promised = day ?? ''),
});
function addTheory(): void {
  props.form.theories = [...props.form.theories, { text: '', source: 'customer', assembly: '' }];
}
</script>

<template>
  <fieldset class="sheet fields">
    <legend>{{ t('counter.agreed') }} <kbd>Alt 4</kbd></legend>
    <TextField
      id="limit"
      v-model="form.limit"
      class="short"
      :label="t('counter.limit', { currency: shop.currency })"
      :error="errorOf('limit')"
      inputmode="decimal"
    />
    <TextField
      id="limitMinutes"
      v-model="form.limitMinutes"
      class="short"
      :label="t('counter.limitMinutes')"
      :error="errorOf('limitMinutes')"
      inputmode="numeric"
    />
    <TextField
      id="checkFee"
      v-model="form.checkFee"
      class="short"
      :label="t('counter.checkFee', { currency: shop.currency })"
      :error="errorOf('checkFee')"
      inputmode="decimal"
    />
    <FormField id="promised" class="short" :label="t('counter.promised')">
      <el-date-picker id="promised" v-model="promised" value-format="YYYY-MM-DD" :aria-label="t('counter.promised')" />
    </FormField>
    <ChoiceField id="warranty" v-model="form.warranty" class="short" :label="t('counter.warranty')" :options="warranty" />
    <ChoiceField
      id="mayLoseData"
      v-model="form.mayLoseData"
      :label="t('counter.mayLoseData')"
      :options="mayLoseData"
      :none="t('counter.notAsked')"
    />
    <TextField id="needs" v-model="form.needs" :bounds="textBounds.needs" :label="t('counter.needs')" />
    <TextField id="canDoWithout" v-model="form.canDoWithout" :bounds="textBounds.canDoWithout" :label="t('counter.canDoWithout')" />
    <TextField
      id="shelf"
      v-model="form.shelf"
      :bounds="textBounds.shelf"
      class="short"
      :label="t('counter.shelf')"
      :proposals="shop.shelves"
    />
    <TextField
      id="otherAccessories"
      v-model="form.otherAccessories"
      :bounds="textBounds.otherAccessories"
      :label="t('counter.otherAccessories')"
    />
    <TicksField v-model="form.accessories" :label="t('counter.accessories')" :options="accessoryTicks" />
    <template v-for="(theory, index) in form.theories" :key="index">
      <TextField :id="`theory-${index}`" v-model="theory.text" :label="t('counter.theory')" />
      <ChoiceField :id="`source-${index}`" v-model="theory.source" class="short" :label="t('counter.theorySource')" :options="sources" />
      <ChoiceField
        :id="`blames-${index}`"
        v-model="theory.assembly"
        class="short"
        :label="t('counter.theoryBlames')"
        :options="assemblies"
        :none="t('counter.notSaid')"
        searched
      />
    </template>
    <div class="field wide">
      <button type="button" class="plain" @click="addTheory">{{ t('counter.addTheory') }}</button>
    </div>
  </fieldset>
</template>
