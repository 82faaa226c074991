<script setup lang="ts">
import { liveEntries, policies, type Body, type Entry, type NextStep, type QuickBody } from '@veglia/core';
import { usualShopSettings, type ShopSettings } from '@veglia/contract';
import { computed, defineAsyncComponent, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { money, percent, useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import JobGate from '../../parts/JobGate.vue';
import QuickLine from '../../parts/QuickLine.vue';
import SetPlan from '../../parts/SetPlan.vue';
import SuspectList from '../../parts/SuspectList.vue';
import { useJob } from '../../stores/job.ts';
import { useSession } from '../../stores/session.ts';
import { useEntryWords } from './entryWords.ts';
import { useDeeperLook } from '../../stores/deeper.ts';
import DeeperLine from './DeeperLine.vue';
import DoubtfulList from './DoubtfulList.vue';
import LayoutFound from './LayoutFound.vue';
import LedgerList from './LedgerList.vue';
import NewComplaint from './NewComplaint.vue';
import NewerCounts from './NewerCounts.vue';
import NextPanel from './NextPanel.vue';

const props = defineProps<{ id: string }>();
const { t } = useI18n();
const store = useJob();
const session = useSession();
const names = useNames(() => store.compiled);
const words = useEntryWords(() => store.compiled);
const panel = ref<InstanceType<typeof NextPanel>>();
const quick = ref<InstanceType<typeof QuickLine>>();
const thinkSo = ref(false);
const chosenKey = ref('');
/** The light read at any time, beside the steps. */
const BlinkInJob = defineAsyncComponent(() => import('../blink/BlinkInJob.vue'));
const lightOpen = ref(false);
const note = ref('');

const keyOf = (step: NextStep): string => `${step.kind}|${step.id}|${step.of ?? ''}`;
const steps = computed(() => store.fold?.next ?? []);
/** Recommended ones first; what was left out may be taken all the same. */
const all = computed(() => [...steps.value, ...(store.fold?.leftOut ?? []).map((left) => left.step)]);
const step = computed(() => all.value.find((one) => keyOf(one) === chosenKey.value) ?? steps.value[0]);
const others = computed(() => steps.value.filter((one) => one !== step.value));
const layout = computed(() => (store.fold?.set.layout === undefined ? undefined : store.compiled?.layouts.get(store.fold.set.layout)));
const closePath = computed(() => `/jobs/${props.id}/close`);
const outcome = computed(() => {
  const last = store.entries.filter((entry) => entry.body.kind === 'job.closed').at(-1);
  return last?.body.kind === 'job.closed' ? last.body.outcome : 'repaired';
});
const entryWords = (id: string): string => {
  const entry = store.entries.find((one) => one.id === id);
  return entry ? words(entry, store.entries).title : id;
};

const theories = computed(() => liveEntries(store.entries).flatMap(({ body }) => (body.kind === 'theory.told' ? [body] : [])));

const deeper = useDeeperLook();
/** Reasons a deeper look can better; a proof, a code or a question stays what it is. */
const byCost = computed(() => ['least-cost', 'cheaper-than-testing', 'repair-before-test'].includes(steps.value[0]?.because.code ?? ''));
watch(
  () => [store.input, store.compiled, byCost.value] as const,
  ([input, compiled, looks]) => {
    if (input && compiled && looks) deeper.look(input, compiled);
    else deeper.forget();
  },
  { immediate: true },
);
const repairFailed = computed(() => {
  const last = store.entries.filter((entry) => entry.body.kind === 'repair.done').at(-1);
  return last?.body.kind === 'repair.done' && last.body.result === 'unchanged';
});
/** Another complaint came and nobody has said which. */
const complaintOpen = computed(() => store.fold?.symptoms.length === 0 && store.fold.doubts.some(({ code }) => code === 'symptom-changed'));

watch(
  () => props.id,
  () => (chosenKey.value = ''),
);

async function write(bodies: Body[]): Promise<void> {
  const answered = bodies.some((body) => body.kind === 'test.answered' || body.kind === 'repair.done' || body.kind === 'blink.read');
  const written = store.write(...bodies);
  if (answered) {
    chosenKey.value = '';
    thinkSo.value = false;
  }
  await written;
}
async function takeBack(entry: Entry, reason: string): Promise<void> {
  await store.write({ kind: 'entry.retracted', v: 1, entry: entry.id, reason });
}
async function addNote(): Promise<void> {
  const text = note.value.trim();
  if (text === '') return;
  // Emptied at once: sending may take its time, and what is typed meanwhile is the next note.
  note.value = '';
  await store.write({ kind: 'note.added', v: 1, text });
}
async function takeQuick(taken: readonly QuickBody[], notes: readonly string[]): Promise<void> {
  await write([...taken, ...notes.map((text): Body => ({ kind: 'note.added', v: 1, text }))]);
}
function take(other: NextStep): void {
  chosenKey.value = keyOf(other);
  window.scrollTo({ top: 0 });
}

/** Keys belong to the bench unless somebody is typing. */
function onKey(event: KeyboardEvent): void {
  if (event.altKey && event.code === 'KeyQ') {
    event.preventDefault();
    quick.value?.focus();
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const target = event.target as HTMLElement;
  if (target.closest('textarea, select') || (target instanceof HTMLInputElement && target.type !== 'checkbox')) return;
  const key = event.key.toLowerCase();
  if (key === 'o') store.policy = policies[(policies.indexOf(store.policy) + 1) % policies.length] ?? 'cost';
  else if (key === 'l') lightOpen.value = !lightOpen.value;
  else if (key === 'escape') {
    chosenKey.value = '';
    lightOpen.value = false;
  } else if (key === 's' && others.value[0]) take(others.value[0]);
  else if (!panel.value?.press(key)) return;
  event.preventDefault();
}
const shop = shallowRef<ShopSettings>(usualShopSettings);
onMounted(async () => {
  window.addEventListener('keydown', onKey);
  try {
    const reply = await api.shop();
    if (reply.ok) shop.value = reply.value.settings;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
});
onUnmounted(() => window.removeEventListener('keydown', onKey));
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold, compiled }">
    <div class="band">
      <h1>
        <span class="figure" data-test="job-number">{{ t('bench.job', { n: job.number }) }}</span> {{ job.plate.maker }}
        {{ job.plate.model }}
      </h1>
      <p class="state" data-test="set-state">
        <span class="chip">{{ names.stage(fold.set.stageId) }}</span>
        <span class="chip" :class="{ hot: fold.set.plugged }">{{ fold.set.plugged ? t('bench.plugged') : t('bench.unplugged') }}</span>
        <span class="chip" :class="{ hot: !fold.set.railsDown }">{{
          fold.set.railsDown ? t('bench.railsDown') : t('bench.railsUnknown')
        }}</span>
        <span class="chip" :class="{ hot: !fold.set.verified }">{{
          fold.set.verified ? t('bench.verified') : t('bench.notVerified')
        }}</span>
        <span class="figure">{{ t('bench.costSoFar', { minutes: Math.round(fold.spent.minutes), amount: money(fold.spent.cost) }) }}</span>
        <span v-if="fold.spent.byTheBook > 0" class="soft">{{
          t('bench.ofItByTheBook', { minutes: Math.round(fold.spent.byTheBook) })
        }}</span>
      </p>
    </div>
    <p v-if="!store.reached" class="sheet alarm" role="alert" data-test="not-reached">
      {{ t('common.notReached') }}. {{ t('bench.waiting', { n: store.waiting.length }) }}.
      <button type="button" class="plain" @click="store.flush()">{{ t('bench.sendNow') }}</button>
    </p>
    <div v-if="store.refused.length > 0" class="sheet alarm" role="alert">
      {{ t('bench.refused', { n: store.refused.length }) }}: {{ store.refused[0]?.refused }}
      <button type="button" class="plain" @click="store.dropRefused()">{{ t('bench.discard') }}</button>
    </div>
    <div class="bench">
      <div class="column">
        <section v-if="fold.closed" class="sheet" role="status">
          <h1>{{ t('bench.closed', { outcome: t(`outcome.${outcome}`) }) }}</h1>
        </section>
        <NewComplaint v-else-if="complaintOpen" :compiled="compiled" @write="write" />
        <NextPanel
          v-else-if="step"
          ref="panel"
          :step="step"
          :chosen="chosenKey !== '' && step !== steps[0]"
          :fold="fold"
          :compiled="compiled"
          :think-so="thinkSo"
          :close-path="closePath"
          :shop="shop"
          :entries="store.entries"
          :family="store.input?.set.family"
          @write="write"
          @toggle-think-so="thinkSo = !thinkSo"
          @back="chosenKey = ''"
        />
        <section v-if="!fold.closed && !complaintOpen" class="sheet">
          <div class="line">
            <h2>{{ t('bench.others') }} <KeyCap label="S" /></h2>
            <div class="switch" role="group" :aria-label="t('bench.order.title')">
              <KeyCap label="O" />
              <button
                v-for="policy in policies"
                :key="policy"
                type="button"
                class="plain"
                :aria-pressed="store.policy === policy"
                :data-test="`order-${policy}`"
                @click="store.policy = policy"
              >
                {{ t(`bench.order.${policy}`) }}
              </button>
            </div>
          </div>
          <DeeperLine
            v-if="byCost && steps[0]"
            :looked="deeper.answer.value"
            :suggested="steps[0]"
            :compiled="compiled"
            @take="
              (kind, stepId, of) =>
                (chosenKey = `${kind}|${stepId}|${(kind === 'repair' ? all.find((one) => one.kind === kind && one.id === stepId)?.of : of) ?? ''}`)
            "
          />
          <ul class="others" data-test="others">
            <li v-for="other in others" :key="keyOf(other)">
              <button type="button" class="other" :data-step="other.id" :data-of="other.of" @click="take(other)">
                <span>{{ names.step(other.kind, other.id, other.kind === 'test' ? other.of : undefined) }}</span>
                <span class="soft figure">{{ t('common.minutes', { n: Math.round(other.minutes + other.waitMinutes) }) }}</span>
              </button>
            </li>
          </ul>
          <details v-if="fold.leftOut.length > 0" data-test="left-out">
            <summary>{{ t('bench.leftOut') }}</summary>
            <ul>
              <li v-for="left in fold.leftOut" :key="keyOf(left.step)">
                <button type="button" class="other soft" :data-step="left.step.id" :data-of="left.step.of" @click="take(left.step)">
                  <span>{{ names.test(left.step.id, left.step.of) }}</span>
                  <span>{{ t(`core.leftOut.${left.code}`) }}</span>
                </button>
              </li>
            </ul>
          </details>
        </section>
      </div>
      <div class="column">
        <section class="sheet plansheet">
          <LayoutFound :fold="fold" :compiled="compiled" :family="store.input?.set.family" @write="write" />
          <SetPlan v-if="layout" :layout="layout" :assemblies="fold.assemblies" :compiled="compiled" :out="fold.set.out" />
        </section>
        <section v-if="fold.doubts.length > 0" class="sheet doubts" data-test="doubts">
          <h2>{{ t('bench.doubts') }}</h2>
          <p v-for="(doubt, index) in fold.doubts" :key="index">
            {{
              t(`core.doubt.${doubt.code}`, { id: doubt.id === undefined ? '' : names.test(doubt.id), percent: percent(doubt.value ?? 0) })
            }}
          </p>
        </section>
        <section class="sheet">
          <h2>{{ t('bench.suspects') }}</h2>
          <SuspectList :assemblies="fold.assemblies" :compiled="compiled" :entry-words="entryWords" :theories="theories" />
        </section>
        <NewerCounts v-if="store.input && !fold.closed" :key="id" :input="store.input" :fold="fold" @write="write" />
        <DoubtfulList v-if="store.input && !fold.closed" :input="store.input" :compiled="compiled" :repair-failed="repairFailed" />
      </div>
      <div class="column">
        <section class="sheet">
          <LedgerList
            :entries="store.entries"
            :fold="fold"
            :compiled="compiled"
            :waiting="store.waitingIds"
            :people="session.people"
            @take-back="takeBack"
          />
          <p v-if="!fold.closed">
            <button type="button" class="push" :aria-expanded="lightOpen" data-test="read-light" @click="lightOpen = !lightOpen">
              <KeyCap label="L" />{{ t('bench.readLight') }}
            </button>
          </p>
          <BlinkInJob
            v-if="lightOpen && !fold.closed"
            :compiled="compiled"
            :entries="store.entries"
            :layout="fold.set.layout"
            :family="store.input?.set.family"
            @write="write"
          />
          <QuickLine v-if="store.input && !fold.closed" ref="quick" :input="store.input" :compiled="compiled" @take="takeQuick" />
          <form class="note" @submit.prevent="addNote">
            <label for="note" class="visually-hidden">{{ t('bench.note') }}</label>
            <input id="note" v-model="note" :placeholder="t('bench.note')" />
            <button type="submit" class="push">{{ t('bench.noteAdd') }}</button>
          </form>
        </section>
        <section class="sheet line">
          <RouterLink v-if="!fold.closed" :to="closePath" class="push" data-test="to-close">{{ t('bench.toClose') }}</RouterLink>
          <RouterLink :to="`/jobs/${id}/call`" data-test="to-call">{{ t('bench.call') }}</RouterLink>
          <a :href="`/api/jobs/${id}/label.pdf`" target="_blank">{{ t('bench.label') }}</a>
          <a :href="`/api/jobs/${id}/receipt.pdf`" target="_blank">{{ t('bench.receipt') }}</a>
          <a :href="`/api/jobs/${id}/case`" :download="`job-${job.number}.json`">{{ t('bench.export') }}</a>
        </section>
      </div>
    </div>
  </JobGate>
</template>

<style scoped>
.band {
  display: flex;
  justify-content: space-between;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 10px;
}
.state {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.chip {
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  font-weight: 600;
}
.chip.hot {
  border-color: var(--alarm);
  color: var(--alarm);
  border-left-width: 8px;
}
.bench {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1.1fr) minmax(0, 0.85fr);
  gap: 14px;
  align-items: start;
}
.column {
  display: grid;
  gap: 12px;
  min-width: 0;
}
.plansheet {
  padding: 8px;
}
.line {
  flex-wrap: wrap;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}
.switch {
  display: flex;
  align-items: center;
}
.switch [aria-pressed='true'] {
  background: var(--accent-wash);
  text-decoration: underline;
}
.others {
  max-height: 300px;
  overflow-y: auto;
}
.other {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 42px;
  border: 0;
  border-top: 1px solid var(--line);
  background: none;
  padding: 4px 2px;
  text-align: left;
  cursor: pointer;
}
.other:hover {
  background: var(--accent-wash);
}
.other .figure {
  white-space: nowrap;
}
summary {
  min-height: 40px;
  padding-top: 8px;
  cursor: pointer;
  color: var(--accent);
  font-weight: 600;
}
.doubts {
  border-left: 6px dotted var(--alarm);
}
.note {
  display: flex;
  gap: 8px;
  margin-top: 10px;
}
.note input {
  flex: 1;
  min-width: 0;
  min-height: 44px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
}
@media (max-width: 1100px) {
  .bench {
    grid-template-columns: 1fr;
  }
}
</style>
