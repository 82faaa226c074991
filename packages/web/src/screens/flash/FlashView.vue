<script setup lang="ts">
/** Work on a memory, step by step: nothing is written that was not kept twice over. */
import type { ImageFacts } from '@veglia/contract';
import { flashBodies, flashSessions, liveEntries, openWaits, targetOf, type Body, type FlashDid } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import JobGate from '../../parts/JobGate.vue';
import { useJob } from '../../stores/job.ts';
import { useSession } from '../../stores/session.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';
import RefusedEntries from '../bench/RefusedEntries.vue';
import { useStepKeys } from '../bench/stepKeys.ts';
import StateBand from '../bench/StateBand.vue';
import FlashSteps from './FlashSteps.vue';
import OpenMemory from './OpenMemory.vue';
import { copyWait } from './titles.ts';

defineProps<{ id: string }>();
const { t } = useI18n();
const store = useJob();
const people = useSession();
const names = useNames(() => store.compiled);
const band = ref<InstanceType<typeof StateBand>>();
const live = computed(() => liveEntries(store.entries));
const waits = computed(() => openWaits(live.value));
const sessions = computed(() => flashSessions(live.value));
/** Empty: the newest; `new`: another memory is being opened. */
const chosen = ref('');
const session = computed(() => sessions.value.find(({ id }) => id === chosen.value) ?? sessions.value.at(-1));
const opening = computed(() => chosen.value === 'new' || session.value === undefined);

const shop = useShopSettings();
const steps = ref<InstanceType<typeof FlashSteps>>();
useStepKeys((key) => steps.value?.press(key) === true || band.value?.press(key) === true);

async function write(bodies: readonly Body[]): Promise<void> {
  await store.write(...bodies);
}
/** A step, and with it what it answers on the Bench. */
async function record(id: string, did: FlashDid): Promise<void> {
  const { compiled, fold } = store;
  if (!compiled || !fold) return;
  const before = sessions.value.find((one) => one.id === id)?.did ?? [];
  const words = (test: string, outcome: string) => ({ test: names.test(test), outcome: names.outcome(test, outcome) });
  // The timer of a copy is over with what came of it.
  const name = session.value && copyWait(t, session.value, did.step);
  const over = waits.value
    .filter((one) => one.name === name)
    .map((one): Body => ({ kind: 'wait.ended', v: 2, name: one.name, wait: one.id, ...(one.endsAt > Date.now() ? { early: true } : {}) }));
  if (did.step === 'target') await renameDumps(id, did);
  await write([...flashBodies(id, did, before, { compiled, layout: fold.set.layout }, words), ...over]);
}
/** What the last step answered on the Bench: it was written down in one go with it. */
const answered = computed(() => {
  const at = live.value.findLastIndex(({ body }) => body.kind === 'flash.step');
  return live.value
    .slice(at + 1)
    .filter((one) => one.at === live.value[at]?.at)
    .flatMap(({ body }) =>
      body.kind === 'test.answered'
        ? [`${names.test(body.test)}: ${names.outcome(body.test, body.outcome)}`]
        : body.kind === 'repair.done'
          ? [`${names.repair(body.repair)}: ${t(`result.${body.result}`)}`]
          : [],
    )
    .join('; ');
});
/** Dumps that were read before anybody looked at the labels are told what they are. */
async function renameDumps(id: string, target: Extract<FlashDid, { step: 'target' }>): Promise<void> {
  const by = people.person?.id;
  const reads = sessions.value.find((one) => one.id === id)?.areas.flatMap((area) => area.reads) ?? [];
  for (const { image, bytes, sha256 } of reads) {
    if (image === undefined || sha256 === undefined || by === undefined) continue;
    try {
      const known = await api.image(image);
      if (known.ok) await api.publishImage(image, { by, size: bytes, sha256, facts: { ...known.value.facts, ...targetFacts(target) } });
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  }
}
async function open(did: FlashDid): Promise<void> {
  const id = uuidv7();
  await record(id, did);
  chosen.value = id;
}
/** Of what a set is, that which says what its dump is. */
function targetFacts(target: ReturnType<typeof targetOf>): Partial<ImageFacts> {
  if (!target) return {};
  const { step: _, pairs: __, ...facts } = target;
  return facts;
}
/** What a dump of this job is: its board as it was found, its set. */
const boardNumber = computed(() =>
  live.value.flatMap(({ body }) => (body.kind === 'board.found' && body.assembly !== 'power' ? [body.number] : [])).at(-1),
);
const facts = computed((): Omit<ImageFacts, 'area'> => {
  const opened = session.value?.opened;
  return {
    name: `${store.job?.plate.maker ?? ''} ${store.job?.plate.model ?? ''} ${opened?.name ?? ''}`.trim().slice(0, 120),
    memory: opened?.memory ?? 'spi-nor',
    source: 'own-set',
    ...(opened?.marking === undefined ? {} : { chip: opened.marking }),
    ...(boardNumber.value === undefined ? {} : { board: boardNumber.value }),
    ...targetFacts(session.value && targetOf(session.value)),
    ...(store.job ? { job: store.job.id } : {}),
  };
});
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold, compiled }">
    <div class="flashpage">
      <header class="head">
        <h1>
          <span class="figure">{{ t('bench.job', { n: job.number }) }}</span> {{ t('flash.title') }}
        </h1>
        <p class="soft">{{ job.plate.maker }} {{ job.plate.model }}</p>
        <RouterLink :to="`/jobs/${id}`" class="push">{{ t('flash.toBench') }}</RouterLink>
      </header>
      <StateBand ref="band" :fold="fold" :compiled="compiled" :shop="shop" :waits="waits" @write="write" />
      <RefusedEntries :compiled="compiled" />
      <p v-if="sessions.length > 0" class="inline tabs" role="group" :aria-label="t('flash.memoryTitle')">
        <button
          v-for="one in sessions"
          :key="one.id"
          type="button"
          class="push"
          :aria-pressed="!opening && one.id === session?.id"
          :class="{ full: !opening && one.id === session?.id }"
          @click="chosen = one.id"
        >
          {{ one.opened.name }} · {{ t(`memory.${one.opened.memory}`) }}
        </button>
        <button type="button" class="push" :aria-pressed="opening" @click="chosen = 'new'">{{ t('flash.another') }}</button>
      </p>
      <section v-if="opening" class="sheet">
        <h2>{{ t('flash.memoryTitle') }}</h2>
        <p v-if="sessions.length === 0" class="soft">{{ t('flash.none') }}</p>
        <OpenMemory @did="open" />
      </section>
      <FlashSteps
        v-else-if="session"
        ref="steps"
        :key="session.id"
        :session="session"
        :fold="fold"
        :compiled="compiled"
        :shop="shop"
        :live="live"
        :family="store.input?.set.family"
        :facts="facts"
        :answered="answered"
        @did="(did) => record(session!.id, did)"
        @write="write"
        @attempt="(change) => band?.attempt(change)"
        @charge="band?.press({ command: 'charge', nth: 0 })"
      />
    </div>
  </JobGate>
</template>

<style scoped>
.flashpage {
  display: grid;
  gap: 8px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
}
.head .push {
  margin-left: auto;
}
.tabs {
  flex-wrap: wrap;
}
</style>
