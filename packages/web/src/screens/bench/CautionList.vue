<script setup lang="ts">
/** What a step may do to whoever does it: whole where it is new to this job or can kill, a few words where it was recorded as read. */
import type { ShopSettings } from '@veglia/contract';
import { peakOfMains, poweredFactorVolts, safeVolts, type CaseFold, type CompiledPack, type NextStep } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { textOf } from '../../stores/packs.ts';
import { stageCautions, unreadCautions } from './cautions.ts';

const props = defineProps<{ step: NextStep; fold: CaseFold; compiled: CompiledPack; shop: ShopSettings }>();
const { t } = useI18n();
const cautions = computed(() => props.step.cautions.flatMap((id) => props.compiled.pack.cautions.find((one) => one.id === id) ?? []));
const unread = computed(() => unreadCautions(props.step, props.fold, props.compiled));
const unreadLeft = computed(() => unread.value.length > 0);
const isRecorded = (id: string): boolean => stageCautions(props.step, props.compiled).includes(id) && !unread.value.includes(id);
/** Those that can only harm the set are short too: the way to the step asks for the same, move by move. */
const short = computed(() => cautions.value.filter((one) => isRecorded(one.id) || (one.severity === 'damages' && !unreadLeft.value)));
const whole = computed(() => cautions.value.filter((one) => !short.value.includes(one)));
</script>

<template>
  <ul v-if="cautions.length > 0" class="cautions" data-test="cautions">
    <li v-if="short.length > 0" class="kills">
      <span class="sign" aria-hidden="true">!</span>
      <details>
        <summary>{{ short.map((one) => textOf(one.short)).join(' · ') }}</summary>
        <p v-for="one in short" :key="one.id">{{ textOf(one.text) }}</p>
        <p v-if="shop.localCautions !== '' && !unreadLeft">{{ shop.localCautions }}</p>
      </details>
    </li>
    <li v-for="one in whole" :key="one.id" :class="one.severity">
      <span class="sign" aria-hidden="true">!</span>
      <span>{{ textOf(one.text) }}</span>
    </li>
    <li v-if="step.needs === 'verified'" data-test="capacitor">
      <span class="sign" aria-hidden="true">!</span>
      <span>{{
        t('bench.capacitor', {
          volts: Math.round(peakOfMains(shop.mainsVolts)),
          mains: shop.mainsVolts,
          most: poweredFactorVolts,
          safe: safeVolts,
        })
      }}</span>
    </li>
    <li v-if="shop.localCautions !== '' && (unreadLeft || short.length === 0)" data-test="local-cautions">
      <span class="sign" aria-hidden="true">!</span>
      <span>{{ shop.localCautions }}</span>
    </li>
  </ul>
</template>

<style scoped>
.cautions {
  background: var(--alarm-wash);
  border: 1.5px solid var(--alarm);
  border-radius: var(--radius);
  padding: 6px 10px;
  font-size: 15px;
  line-height: 1.3;
}
.cautions li {
  display: flex;
  gap: 10px;
  padding: 3px 0;
}
.cautions .kills {
  font-weight: 600;
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
summary {
  cursor: pointer;
  min-height: 22px;
}
</style>
