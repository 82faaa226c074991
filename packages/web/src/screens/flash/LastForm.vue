<script setup lang="ts">
/** Another chip fitted, everything off, the first start, settings. */
import {
  flashResults,
  nextValue,
  pictureLooks,
  settingFor,
  triedValues,
  wayOutOf,
  type PictureLook,
  type FlashDid,
  type FlashSession,
  type WonSetting,
} from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import TicksField from '../../parts/TicksField.vue';

type Check = Extract<FlashDid, { step: 'way-out' }>['checked'][number];
const props = defineProps<{
  step: 'fitted' | 'way-out' | 'started' | 'setting';
  session: FlashSession;
  won: readonly WonSetting[];
  hints: readonly string[];
}>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const checks = computed(() => wayOutOf(props.session));
const checked = ref<Check[]>([]);
const chip = reactive({ from: '', to: props.session.opened.name, differs: '' });
const setting = reactive<{ name: string; from: string; to: string; shows: PictureLook | '' }>({ name: '', from: '', to: '', shows: '' });
/** Fields that are empty and must not be. */
const wrong = ref<Partial<Record<'from' | 'to' | 'differs' | 'name', string>>>({});
const filled = (text: string): boolean => text.trim() !== '';

function fit(): void {
  wrong.value = {
    ...(filled(chip.from) ? {} : { from: t('flash.wrong.text') }),
    ...(filled(chip.to) ? {} : { to: t('flash.wrong.text') }),
    ...(filled(chip.differs) || props.session.opened.plan !== 'move' ? {} : { differs: t('flash.wrong.differs') }),
  };
  if (Object.keys(wrong.value).length > 0) return;
  emit('did', {
    step: 'fitted',
    from: chip.from.trim(),
    to: chip.to.trim(),
    ...(filled(chip.differs) ? { differs: chip.differs.trim() } : {}),
  });
}
function set(): void {
  wrong.value = {
    ...(filled(setting.name) ? {} : { name: t('flash.wrong.text') }),
    ...(filled(setting.to) ? {} : { to: t('flash.wrong.text') }),
  };
  if (Object.keys(wrong.value).length > 0) return;
  emit('did', {
    step: 'setting',
    name: setting.name.trim(),
    to: setting.to.trim(),
    ...(filled(setting.from) ? { from: setting.from.trim() } : {}),
    ...(setting.shows === '' ? {} : { shows: setting.shows }),
  });
  // The same setting is stepped on; where the picture is right, another one may follow.
  Object.assign(setting, { name: setting.shows === 'right' ? '' : setting.name, from: '', to: '', shows: '' });
}
const tried = computed(() => (filled(setting.name) ? triedValues(props.session.did, setting.name) : []));
const next = computed(() => (tried.value.length === 0 ? undefined : nextValue(tried.value.map(({ to }) => to))));
const asked = computed(() => (setting.shows === '' ? undefined : settingFor(setting.shows)));
</script>

<template>
  <form v-if="step === 'fitted'" class="fields" @submit.prevent="fit">
    <TextField id="flash-from" v-model="chip.from" :label="t('flash.field.from')" :error="wrong.from" :bounds="{ longest: 80 }" />
    <TextField id="flash-to" v-model="chip.to" :label="t('flash.field.to')" :error="wrong.to" :bounds="{ longest: 80 }" />
    <TextField
      v-if="session.opened.plan === 'move'"
      id="flash-differs"
      v-model="chip.differs"
      class="wide"
      :label="t('flash.field.differs')"
      :error="wrong.differs"
      :bounds="{ longest: 80 }"
    />
    <button type="submit" class="push full" data-test="record-step"><KeyCap :label="cap('confirm')" />{{ t('flash.record') }}</button>
  </form>
  <form v-else-if="step === 'way-out'" class="fields" @submit.prevent="emit('did', { step: 'way-out', checked })">
    <TicksField
      v-model="checked"
      class="column"
      :label="t('flash.how.way-out')"
      :options="checks.map((value) => ({ value, label: t(`flash.check.${value}`) }))"
    />
    <button type="submit" class="push full" data-test="record-step"><KeyCap :label="cap('confirm')" />{{ t('flash.record') }}</button>
  </form>
  <p v-else-if="step === 'started'" class="inline">
    <button
      v-for="(one, index) in flashResults"
      :key="one"
      type="button"
      class="push"
      :class="{ full: one === 'starts' }"
      :data-result="one"
      @click="emit('did', { step: 'started', result: one })"
    >
      <KeyCap :label="cap('answer', index)" />{{ t(`flash.started.${one}`) }}
    </button>
  </p>
  <form v-else class="fields" @submit.prevent="set">
    <p v-if="hints.length > 0" class="wide" data-test="setting-hints">{{ t('bench.ofFamily') }} {{ hints.join('; ') }}</p>
    <div v-if="won.length > 0" class="wide" data-test="won-settings">
      {{ t('flash.won') }}
      <button
        v-for="one in won"
        :key="`${one.name} ${one.to}`"
        type="button"
        class="push"
        @click="Object.assign(setting, { name: one.name, to: one.to })"
      >
        {{ t('flash.wonOne', { name: one.name, to: one.to, n: one.sets }, one.sets) }}
      </button>
    </div>
    <TextField id="flash-setting" v-model="setting.name" :label="t('flash.field.setting')" :error="wrong.name" :bounds="{ longest: 80 }" />
    <TextField id="flash-before" v-model="setting.from" :label="t('flash.field.before')" :bounds="{ longest: 80 }" />
    <TextField id="flash-after" v-model="setting.to" :label="t('flash.field.after')" :error="wrong.to" :bounds="{ longest: 80 }" />
    <ChoiceField
      id="flash-shows"
      v-model="setting.shows"
      :label="t('flash.field.shows')"
      :options="pictureLooks.map((value) => ({ value, label: t(`flash.shows.${value}`) }))"
      :none="t('flash.shows.none')"
    />
    <p v-if="asked" class="wide" data-test="setting-asked">{{ t(`flash.settingFor.${asked}`) }}</p>
    <p v-if="tried.length > 0" class="wide inline" data-test="setting-tried">
      {{ t('flash.tried') }}
      {{ tried.map(({ to, shows }) => (shows === undefined ? to : `${to} (${t(`flash.shows.${shows}`)})`)).join(', ') }}
      <button v-if="next !== undefined" type="button" class="push" data-test="setting-next" @click="setting.to = next">
        {{ t('flash.nextValue', { value: next }) }}
      </button>
    </p>
    <button type="submit" class="push full bottom" data-test="record-step">
      <KeyCap :label="cap('confirm')" />{{ t('flash.record') }}
    </button>
  </form>
</template>

<style scoped>
.column :deep(.el-checkbox-group) {
  display: grid;
}
</style>
