<script setup lang="ts">
/** One thing to be seen: how, and its answer by one key; starts with a clock, a soak with a timer. */
import {
  delaysCompared,
  failureBound,
  openWaits,
  parseQuantity,
  proofNeeds,
  type Body,
  type CaseFold,
  type CompiledPack,
  type Entry,
  type Proof,
  type ProofItem,
} from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import TextField from '../../parts/TextField.vue';
import { useNow } from '../../stores/clock.ts';
import { textOf } from '../../stores/packs.ts';
import UnreadCautions from '../../parts/UnreadCautions.vue';
import { cap, type Pressed } from '../bench/keymap.ts';
import { pressStep } from '../bench/stepKeys.ts';
import LeaveOut from './LeaveOut.vue';

const props = defineProps<{
  item: ProofItem;
  proof: Proof;
  fold: CaseFold;
  compiled: CompiledPack;
  live: readonly Entry[];
}>();
const emit = defineEmits<{ write: [bodies: Body[]]; plug: [] }>();
const needs = computed(() => proofNeeds(props.item, props.fold.set));
const { t, d, n } = useI18n();
const now = useNow();

const cautions = computed(() => props.compiled.pack.cautions.filter(({ id }) => props.item.rule.cautions?.includes(id)));
const unread = computed(() => cautions.value.filter(({ id }) => !props.fold.cautionsRead.includes(id)));

const counts = computed(() => ['starts', 'days', 'delay'].includes(props.item.kind));
const cold = ref(false);
const seconds = ref('');
const wrong = ref('');
/** When the clock was started, milliseconds; undefined: it stands. */
const clock = ref<number>();
const running = computed(() => (clock.value === undefined ? 0 : Math.max(0, (now.value - clock.value) / 1000)));
function record(started: boolean, timed?: number): void {
  const typed = seconds.value.trim() === '' ? undefined : parseQuantity(seconds.value, 's');
  wrong.value = seconds.value.trim() !== '' && !(typed !== undefined && typed >= 0 && typed <= 3600) ? t('proof.start.wrong') : '';
  if (wrong.value !== '') return;
  const took = timed ?? typed;
  clock.value = undefined;
  seconds.value = '';
  emit('write', [
    {
      kind: 'start.timed',
      v: 1,
      started,
      cold: cold.value,
      ...(started && took !== undefined ? { seconds: Math.round(took * 10) / 10 } : {}),
    },
  ]);
  cold.value = false;
}
function tick(): void {
  if (clock.value === undefined) clock.value = Date.now();
  else record(true, (Date.now() - clock.value) / 1000);
}
const bound = computed(() => {
  const { good, failed } = props.proof.starts;
  return good + failed === 0
    ? ''
    : t('proof.start.bound', { share: n(failureBound(good + failed, failed), { style: 'percent', maximumFractionDigits: 0 }) });
});
const compared = computed(() => delaysCompared(props.proof.delays.before, props.proof.delays.after));

const waits = computed(() => openWaits(props.live));
const soak = computed(() => waits.value.find(({ name }) => name === t('proof.soak.wait')));
const unplugged = computed(() => waits.value.find(({ name }) => name === t('proof.start.wait')));
const ran = ref('');
/** What the timer says, unless something else was typed. */
const ranMinutes = computed(() => {
  if (ran.value.trim() !== '') {
    const typed = Number(ran.value.trim().replace(',', '.'));
    return typed >= 0 && typed <= 200 ? typed * 60 : undefined;
  }
  return soak.value === undefined ? undefined : Math.floor((now.value - soak.value.startedAt) / 60_000);
});
function startWait(name: string, minutes: number): void {
  emit('write', [{ kind: 'wait.started', v: 2, name, minutes }]);
}
function soaked(result: 'passed' | 'failed'): void {
  const minutes = ranMinutes.value;
  const asked = (props.item.hours ?? 0) * 60;
  wrong.value =
    minutes === undefined
      ? t('proof.soak.wrong')
      : result === 'passed' && minutes < asked
        ? t('proof.soak.short', { hours: props.item.hours })
        : '';
  if (wrong.value !== '' || minutes === undefined) return;
  const over = soak.value;
  emit('write', [
    { kind: 'proof.soaked', v: 1, minutes, result },
    ...(over
      ? [
          {
            kind: 'wait.ended' as const,
            v: 2 as const,
            name: over.name,
            wait: over.id,
            ...(now.value < over.endsAt ? { early: true } : {}),
          },
        ]
      : []),
  ]);
}
const check = (result: 'passed' | 'failed'): void => emit('write', [{ kind: 'proof.checked', v: 1, item: props.item.id, result }]);

const sheet = ref<HTMLElement>();
const press = (key: Pressed): boolean => pressStep(sheet.value, key, ['proof-needs', 'clock']);
defineExpose({ press });
</script>

<template>
  <div ref="sheet" class="item">
    <p>{{ textOf(item.rule.how) }}</p>
    <UnreadCautions
      v-if="unread.length > 0"
      :cautions="unread"
      :stage="fold.set.stageId"
      data-test="proof-cautions"
      @write="(bodies) => emit('write', bodies)"
    />
    <p v-else-if="needs" class="inline">
      <span class="alarm">{{ t(`proof.needs.${needs}`) }}</span>
      <button type="button" class="push full" data-test="proof-needs" @click="emit('plug')">
        <KeyCap :label="cap('confirm')" />{{ t(`proof.needs.record.${needs}`) }}
      </button>
    </p>
    <template v-else-if="counts">
      <p v-if="item.kind === 'days'" data-test="days-seen">{{ t('proof.days', { n: proof.daysSeen, of: item.days ?? 0 }) }}</p>
      <p v-else-if="item.kind === 'starts'" data-test="starts-seen">
        {{ t('proof.start.seen', { good: proof.starts.good, count: item.count ?? 0, cold: proof.starts.cold, needed: item.cold ?? 0 }) }}
        {{ bound }}
      </p>
      <p v-if="compared" data-test="delays">
        {{ t('proof.delay.before', { median: n(compared.medians[0]), n: proof.delays.before.length }) }}
        {{ t('proof.delay.after', { median: n(compared.medians[1]), n: proof.delays.after.length }) }}
        <template v-if="compared.byChance !== undefined">
          {{ t('proof.delay.chance', { share: n(compared.byChance, { style: 'percent', maximumFractionDigits: 1 }) }) }}
        </template>
      </p>
      <p v-else-if="item.kind === 'delay'" class="soft">{{ t('proof.delay.none') }}</p>
      <el-checkbox v-model="cold" data-test="cold-start">{{ t('proof.start.cold') }}</el-checkbox>
      <p class="inline">
        <button type="button" class="push full" data-test="clock" @click="tick">
          <KeyCap :label="cap('confirm')" />{{ t(clock === undefined ? 'proof.start.clock' : 'proof.start.picture') }}
          <span v-if="clock !== undefined" class="figure">{{ t('proof.start.running', { s: running.toFixed(1) }) }}</span>
        </button>
        <button v-if="clock !== undefined" type="button" class="plain" @click="clock = undefined">{{ t('proof.start.stop') }}</button>
        <button v-if="!unplugged" type="button" class="push" data-test="unplug-timer" @click="startWait(t('proof.start.wait'), 30)">
          {{ t('proof.start.unplug') }}
        </button>
      </p>
      <div class="fields">
        <TextField id="start-seconds" v-model="seconds" :label="t('proof.start.typed')" :error="wrong || undefined" inputmode="decimal" />
      </div>
      <p class="inline">
        <button type="button" class="push" data-result="started" @click="record(true)">
          <KeyCap :label="cap('answer', 0)" />{{ t('proof.start.started') }}
        </button>
        <button type="button" class="push" data-result="not" @click="record(false)">
          <KeyCap :label="cap('answer', 1)" />{{ t('proof.start.not') }}
        </button>
      </p>
    </template>
    <template v-else-if="item.kind === 'soak'">
      <p class="soft">{{ t('proof.soak.attended') }}</p>
      <p v-if="soak" data-test="soak-runs">{{ t('proof.soak.running', { at: d(new Date(soak.endsAt), 'minute') }) }}</p>
      <button
        v-else
        type="button"
        class="push full"
        data-test="soak-timer"
        @click="startWait(t('proof.soak.wait'), (item.hours ?? 0) * 60)"
      >
        {{ t('proof.soak.timer', { hours: item.hours ?? 0 }) }}
      </button>
      <div class="fields">
        <TextField id="soak-hours" v-model="ran" :label="t('proof.soak.ran')" :error="wrong || undefined" inputmode="decimal" />
      </div>
      <p class="inline">
        <button type="button" class="push" :class="{ full: soak !== undefined }" data-result="passed" @click="soaked('passed')">
          <KeyCap :label="cap('answer', 0)" />{{ t('proof.soak.passed') }}
        </button>
        <button type="button" class="push" data-result="failed" @click="soaked('failed')">
          <KeyCap :label="cap('answer', 1)" />{{ t('proof.soak.failed') }}
        </button>
      </p>
    </template>
    <p v-else-if="item.kind === 'modification'">
      {{ t('proof.modification') }} <RouterLink :to="{ name: 'close' }">{{ t('proof.toClose') }}</RouterLink>
    </p>
    <p v-else class="inline">
      <button type="button" class="push full" data-result="passed" @click="check('passed')">
        <KeyCap :label="cap('answer', 0)" />{{ t('proof.passed') }}
      </button>
      <button type="button" class="push" data-result="failed" @click="check('failed')">
        <KeyCap :label="cap('answer', 1)" />{{ t('proof.failed') }}
      </button>
    </p>
    <p v-if="item.state === 'failed'" class="alarm" role="status">{{ t('proof.failedHow') }}</p>
    <LeaveOut
      v-if="item.state === 'open' && item.rule.safety !== 'ground-screws'"
      :items="[item]"
      @write="(bodies) => emit('write', bodies)"
    />
  </div>
</template>

<style scoped>
.item {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.inline {
  flex-wrap: wrap;
}
.fields {
  width: 100%;
}
</style>
