<script setup lang="ts">
/** What has to be seen before the set leaves, one thing at a time, by keys; what is in the way of closing. */
import { liveEntries, openWaits, proofOfRepair, type Body, type ProofItem } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import JobGate from '../../parts/JobGate.vue';
import { useJob } from '../../stores/job.ts';
import { textOf } from '../../stores/packs.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';
import { useStepKeys } from '../bench/stepKeys.ts';
import RefusedEntries from '../bench/RefusedEntries.vue';
import StateBand from '../bench/StateBand.vue';
import LeaveOut from './LeaveOut.vue';
import ProofItemForm from './ProofItemForm.vue';

defineProps<{ id: string }>();
const { t } = useI18n();
const store = useJob();
const shop = useShopSettings();
const live = computed(() => liveEntries(store.entries));
const proof = computed(() => (store.fold && store.compiled ? proofOfRepair(live.value, store.fold.set, store.compiled) : undefined));
const items = computed(() => proof.value?.items ?? []);
const chosen = ref('');
const due = computed(() => items.value.find(({ state }) => state === 'open') ?? items.value.find(({ state }) => state === 'failed'));
const item = computed((): ProofItem | undefined => items.value.find(({ id }) => id === chosen.value) ?? due.value);
const count = (state: ProofItem['state']): number => items.value.filter((one) => one.state === state).length;
const minutes = computed(() => Math.ceil(items.value.reduce((sum, one) => sum + one.minutes, 0)));
const waiting = computed(() => items.value.reduce((sum, one) => sum + one.waitMinutes, 0));
const hours = (value: number): string => (value >= 60 ? `${Math.round(value / 6) / 10} h` : `${Math.round(value)} min`);
const signs = { open: '○', passed: '✓', failed: '✕', skipped: '–' } as const;
const rest = computed(() => items.value.filter(({ state, rule }) => state === 'open' && rule.safety === undefined));

const band = ref<InstanceType<typeof StateBand>>();
const form = ref<InstanceType<typeof ProofItemForm>>();
async function write(bodies: readonly Body[]): Promise<void> {
  const was = chosen.value;
  await store.write(...bodies);
  // Whoever has gone on to something else meanwhile stays there.
  if (chosen.value !== was) return;
  // Starts are counted one after the other.
  if (items.value.find(({ id }) => id === chosen.value)?.state !== 'open') chosen.value = '';
}
useStepKeys((key) => form.value?.press(key) === true || band.value?.press(key) === true);
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold, compiled }">
    <div class="proof">
      <header class="head">
        <h1>
          <span class="figure">{{ t('bench.job', { n: job.number }) }}</span> {{ t('proof.title') }}
        </h1>
        <p class="soft">{{ job.plate.maker }} {{ job.plate.model }}</p>
        <span class="links">
          <RouterLink to="/pictures" class="push" data-test="to-pictures">{{ t('proof.pictures') }}</RouterLink>
          <RouterLink :to="`/jobs/${id}`" class="push">{{ t('proof.toBench') }}</RouterLink>
          <RouterLink v-if="!fold.closed" :to="`/jobs/${id}/close`" class="push" :class="{ full: !due }" data-test="proof-to-close">
            {{ t('proof.toClose') }}
          </RouterLink>
        </span>
      </header>
      <StateBand ref="band" :fold="fold" :compiled="compiled" :shop="shop" :waits="openWaits(live)" @write="write" />
      <RefusedEntries :compiled="compiled" />
      <p class="coverage" role="status" data-test="coverage">
        <progress :value="count('passed') + count('skipped')" :max="items.length" />
        <strong>{{ t('proof.coverage', { done: count('passed'), all: items.length }) }}</strong>
        <span v-if="count('skipped') > 0">{{ t('proof.skipped', { n: count('skipped') }) }}</span>
        <span v-if="count('failed') > 0" class="alarm">{{ t('proof.failedCount', { n: count('failed') }) }}</span>
        <span v-if="due" class="soft">{{
          waiting > 0 ? t('proof.left', { hands: minutes, wait: hours(waiting) }) : t('proof.handsLeft', { hands: minutes })
        }}</span>
      </p>
      <div class="columns">
        <section class="sheet now" data-test="proof-item" :data-item="item?.id">
          <p v-if="!item" data-test="proof-done">{{ t('proof.allDone') }}</p>
          <template v-else-if="proof">
            <p class="inline">
              <span class="soft">{{ t(item.id === due?.id ? 'proof.next' : 'proof.selected') }}</span>
              <button v-if="item.id !== due?.id" type="button" class="plain" @click="chosen = ''">{{ t('proof.toNext') }}</button>
            </p>
            <h2 class="title">{{ textOf(item.rule.name) }}</h2>
            <ProofItemForm
              ref="form"
              :key="item.id"
              :item="item"
              :proof="proof"
              :fold="fold"
              :compiled="compiled"
              :live="live"
              @write="write"
              @plug="band?.press({ command: 'plug', nth: 0 })"
            />
          </template>
        </section>
        <section class="sheet">
          <h2>{{ t('proof.list') }}</h2>
          <ol data-test="proof-list">
            <li v-for="one in items" :key="one.id" :data-item="one.id" :data-state="one.state">
              <button type="button" :aria-current="one.id === item?.id" @click="chosen = one.id">
                <span class="sign" :class="{ alarm: one.state === 'failed' }" aria-hidden="true">{{ signs[one.state] }}</span>
                <span>
                  {{ textOf(one.rule.name) }}
                  <span class="soft">{{ one.reason ? t(`proof.skip.${one.reason}`) : t(`proof.state.${one.state}`) }}</span>
                </span>
              </button>
            </li>
          </ol>
          <LeaveOut v-if="rest.length > 1" :items="rest" @write="write" />
        </section>
      </div>
    </div>
  </JobGate>
</template>

<style scoped>
.proof {
  display: grid;
  gap: 8px;
}
.head,
.links {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
}
.links {
  gap: 8px;
  margin-left: auto;
}
.coverage {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
}
progress {
  width: 180px;
  accent-color: var(--accent);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 10px;
  align-items: start;
}
.now {
  display: grid;
  gap: 8px;
  border-left: 6px solid var(--accent);
}
.title {
  font-size: 22px;
  color: var(--ink);
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li button {
  display: flex;
  gap: 10px;
  align-items: baseline;
  width: 100%;
  min-height: 40px;
  padding: 4px 8px;
  border: 0;
  border-radius: var(--radius);
  background: none;
  color: var(--ink);
  text-align: left;
  cursor: pointer;
}
li button[aria-current='true'] {
  background: var(--accent-wash);
}
.sign {
  flex: none;
  width: 16px;
  text-align: center;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
