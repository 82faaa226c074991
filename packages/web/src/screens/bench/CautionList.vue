<script setup lang="ts">
/** What a step may do to whoever does it: whole until it is recorded as read in this job, then one line that opens by a key. */
import type { ShopSettings } from '@veglia/contract';
import { peakOfMains, poweredFactorVolts, safeVolts, type CaseFold, type CompiledPack, type NextStep } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { textOf } from '../../stores/packs.ts';
import { newCautions, unreadCautions } from './cautions.ts';
import { cap } from './keymap.ts';

const props = defineProps<{ step: NextStep; fold: CaseFold; compiled: CompiledPack; shop: ShopSettings }>();
/** The one line is opened. */
const open = defineModel<boolean>('open', { required: true });
/** What stands whole and bars nothing was read. */
defineEmits<{ read: [] }>();
const { t } = useI18n();
const cautions = computed(() => props.step.cautions.flatMap((id) => props.compiled.pack.cautions.find((one) => one.id === id) ?? []));
const barred = computed(() => unreadCautions(props.step, props.fold, props.compiled).length > 0);
const news = computed(() => newCautions(props.step, props.fold, props.compiled));
const known = computed(() => cautions.value.filter(({ id }) => !news.value.includes(id)));
const whole = computed(() => cautions.value.filter(({ id }) => news.value.includes(id)));
const capacitor = computed(() =>
  props.step.needs === 'verified'
    ? t('bench.capacitor', {
        volts: Math.round(peakOfMains(props.shop.mainsVolts)),
        mains: props.shop.mainsVolts,
        most: poweredFactorVolts,
        safe: safeVolts,
      })
    : '',
);
/** The shop's own words and the charge go with what is new, or into the line with the rest. */
const alsoWhole = computed(() => news.value.length > 0);
</script>

<template>
  <div v-if="cautions.length > 0 || capacitor !== ''" class="cautions" data-test="cautions">
    <div v-if="known.length > 0" class="line kills">
      <span class="sign" aria-hidden="true">!</span>
      <button
        type="button"
        class="plain brief"
        data-test="cautions-line"
        :aria-expanded="open"
        :title="t('bench.cautionsOpen')"
        @click="open = !open"
      >
        <KeyCap v-if="news.length === 0" :label="cap('cautions')" />
        <span class="shorts">{{ t('bench.cautionsLine', known.length) }}: {{ known.map((one) => textOf(one.short)).join(' · ') }}</span>
      </button>
    </div>
    <ul v-if="open || whole.length > 0">
      <template v-if="open">
        <li v-for="one in known" :key="one.id" :class="one.severity">
          <span class="sign" aria-hidden="true">!</span><span>{{ textOf(one.text) }}</span>
        </li>
      </template>
      <li v-for="one in whole" :key="one.id" :class="one.severity">
        <span class="sign" aria-hidden="true">!</span>
        <span>{{ textOf(one.text) }}</span>
      </li>
      <li v-if="capacitor !== ''" data-test="capacitor">
        <span class="sign" aria-hidden="true">!</span>
        <span>{{ capacitor }}</span>
      </li>
      <li v-if="shop.localCautions !== '' && (open || alsoWhole)" data-test="local-cautions">
        <span class="sign" aria-hidden="true">!</span>
        <span>{{ shop.localCautions }}</span>
      </li>
    </ul>
    <button v-if="whole.length > 0 && !barred" type="button" class="plain" data-test="cautions-seen" @click="$emit('read')">
      <KeyCap :label="cap('cautions')" />{{ t('bench.cautionsSeen') }}
    </button>
  </div>
</template>

<style scoped>
/* One line is as wide as there is room, and never makes any. */
.cautions {
  contain: inline-size;
  background: var(--alarm-wash);
  border: 1.5px solid var(--alarm);
  border-radius: var(--radius);
  padding: 1px 8px;
  font-size: 15px;
  line-height: 1.3;
}
.cautions li {
  display: flex;
  gap: 10px;
  padding: 3px 0;
}
.cautions ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.cautions .kills {
  font-weight: 600;
}
.line {
  display: flex;
  align-items: center;
  gap: 10px;
}
.brief {
  display: flex;
  min-height: 40px;
  min-width: 0;
  align-items: center;
  gap: 6px;
  padding: 0;
  text-align: left;
}
.shorts {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.sign {
  flex: none;
  width: 22px;
  height: 22px;
  text-align: center;
  font-weight: 700;
  line-height: 22px;
  color: var(--alarm-wash);
  background: var(--alarm);
  border-radius: 4px;
}
</style>
