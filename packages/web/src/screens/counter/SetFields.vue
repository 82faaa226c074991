<script setup lang="ts">
/** Which set it is, what it looks like, and who was in it before. */
import { conditions, earlierHands, earlierWork, familiesCovering, type CompiledPack } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import TicksField from '../../parts/TicksField.vue';
import { textOf } from '../../stores/packs.ts';
import { textBounds, type ErrorOf, type IntakeForm } from './intake.ts';
import LooksFields from './LooksFields.vue';

const props = defineProps<{ form: IntakeForm; compiled: CompiledPack; errorOf: ErrorOf }>();
const { t } = useI18n();
const makers = computed(() => [...new Set(props.compiled.pack.families.map(({ maker }) => maker))].sort());
const models = computed(() =>
  props.compiled.pack.families
    .filter(({ id, maker }) =>
      props.form.family === '' ? props.form.maker === '' || maker === props.form.maker : id === props.form.family,
    )
    .flatMap((family) => family.models),
);
/** Found by its name or by any of its models. */
const families = computed(() =>
  props.compiled.pack.families
    .filter(({ id, retired }) => !retired || id === props.form.family)
    .map(({ id, name, models: its }) => ({ value: id, label: `${textOf(name)} (${its.join(', ')})` })),
);
const family = computed(() => props.compiled.pack.families.find(({ id }) => id === props.form.family));
const layouts = computed(() => [
  { value: 'not-sure', label: t('counter.notSure') },
  ...props.compiled.pack.layouts.map(({ id, name }) => ({ value: id, label: textOf(name) })),
]);
const conditionTicks = computed(() => conditions.map((value) => ({ value, label: t(`core.condition.${value}`) })));
const earlierTicks = computed(() => earlierWork.map((value) => ({ value, label: t(`earlierDid.${value}`) })));
const hands = computed(() => earlierHands.map((value) => ({ value, label: t(`earlierBy.${value}`) })));

/** The maker and, where the family has one layout only, the layout follow; what was typed stays. */
function familyChosen(): void {
  const form = props.form;
  if (family.value && form.maker.trim() === '') form.maker = family.value.maker;
  const only = family.value?.layouts.length === 1 ? family.value.layouts[0] : undefined;
  if (only !== undefined) form.layout = only;
}
/** A model and version that one family alone covers name the family. */
function modelTyped(): void {
  const [only, ...others] = familiesCovering(props.compiled.pack.families, props.form);
  if (props.form.family !== '' || only === undefined || others.length > 0) return;
  props.form.family = only;
  familyChosen();
}
</script>

<template>
  <fieldset class="sheet fields">
    <legend>{{ t('counter.set') }} <kbd>Alt 2</kbd></legend>
    <TextField
      id="maker"
      v-model="form.maker"
      :bounds="textBounds.maker"
      :label="t('counter.maker')"
      :error="errorOf('maker')"
      :placeholder="t('counter.makerHint')"
      :proposals="makers"
    />
    <TextField
      id="model"
      v-model="form.model"
      :bounds="textBounds.model"
      class="short"
      :label="t('counter.model')"
      :proposals="models"
      @change="modelTyped"
    />
    <TextField
      id="version"
      v-model="form.version"
      :bounds="textBounds.version"
      class="short"
      :label="t('counter.version')"
      @change="modelTyped"
    />
    <ChoiceField
      id="family"
      v-model="form.family"
      :label="t('counter.family')"
      :options="families"
      :none="t('counter.familyHint')"
      searched
      @change="familyChosen"
    />
    <TextField id="serial" v-model="form.serial" :bounds="textBounds.serial" :label="t('counter.serial')" />
    <TextField id="size" v-model="form.size" class="short" :label="t('counter.size')" :error="errorOf('size')" inputmode="numeric" />
    <TextField id="age" v-model="form.age" class="short" :label="t('counter.age')" :error="errorOf('age')" inputmode="decimal" />
    <ChoiceField id="layout" v-model="form.layout" :label="t('counter.layout')" :options="layouts" />
    <LooksFields v-if="form.layout === 'not-sure'" v-model="form.looks" :compiled="compiled" :possible="family?.layouts" />
    <TicksField v-model="form.condition" :label="t('counter.condition')" :options="conditionTicks" />
    <TextField id="earlier" v-model="form.earlier" :bounds="textBounds.earlier" :label="t('counter.earlier')" />
    <ChoiceField id="earlierBy" v-model="form.earlierBy" :label="t('counter.earlierBy')" :options="hands" :none="t('counter.notSaid')" />
    <TicksField v-model="form.earlierDid" :label="t('counter.earlierDid')" :options="earlierTicks" />
  </fieldset>
</template>
