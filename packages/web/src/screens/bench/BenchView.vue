<script setup lang="ts">
/** The bench: one step large, the set as it stands, who is suspect and why, and the ledger; all of it by keys. */
import {
  asOf,
  foldCase,
  liveEntries,
  openWaits,
  type Body,
  type BodyOf,
  type DoubtCode,
  type Entry,
  type NextStep,
  type QuickBody,
} from '@veglia/core';
import { computed, defineAsyncComponent, nextTick, onMounted, onUnmounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { money, percent, useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import JobGate from '../../parts/JobGate.vue';
import QuickLine from '../../parts/QuickLine.vue';
import SetPlan from '../../parts/SetPlan.vue';
import SuspectList from '../../parts/SuspectList.vue';
import { saveBlob } from '../../saveBlob.ts';
import { useEffects } from '../../stores/deeper.ts';
import { aloud, far, say } from '../../stores/hands.ts';
import { useNow } from '../../stores/clock.ts';
import { useJob } from '../../stores/job.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';
import { practiceJob } from '../../stores/practice.ts';
import { textOf } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import CourseSheet from './CourseSheet.vue';
import DoubtfulList from './DoubtfulList.vue';
import { useEntryWords } from './entryWords.ts';
import JobChanges from './JobChanges.vue';
import InstrumentShelf from './InstrumentShelf.vue';
import LayoutFound from './LayoutFound.vue';
import LedgerList from './LedgerList.vue';
import ComplaintLine from './ComplaintLine.vue';
import NewComplaint from './NewComplaint.vue';
import NewerCounts from './NewerCounts.vue';
import NextPanel from './NextPanel.vue';
import NodeSheet from './NodeSheet.vue';
import OtherSteps from './OtherSteps.vue';
import { useSteps } from './steps.ts';
import ComebackLine from './ComebackLine.vue';
import TrialLine from './TrialLine.vue';
import PartsLine from './PartsLine.vue';
import RefusedEntries from './RefusedEntries.vue';
import StateBand from './StateBand.vue';
import { cap, pressed, type Pressed } from './keymap.ts';

const PracticeCoach = defineAsyncComponent(() => import('../practice/PracticeCoach.vue'));
const props = defineProps<{ id: string }>();
const { t } = useI18n();
const store = useJob();
const names = useNames(
  () => store.compiled,
  () => store.fold?.set.layout,
);
const session = useSession();
const words = useEntryWords(() => store.compiled);
const panel = ref<InstanceType<typeof NextPanel>>();
const band = ref<InstanceType<typeof StateBand>>();
const others = ref<InstanceType<typeof OtherSteps>>();
const coach = ref<{ press: () => boolean }>();
const plan = ref<InstanceType<typeof SetPlan>>();
const nodeSheet = ref<InstanceType<typeof NodeSheet>>();
const instruments = ref<InstanceType<typeof InstrumentShelf>>();
const quick = ref<InstanceType<typeof QuickLine>>();
const noteField = ref<HTMLInputElement>();
const thinkSo = ref(false);
const chosenNode = ref('');
const note = ref('');
/** The ledger as it stood after an entry, looked at and not written to. */
const then = ref<number>();

const live = computed(() => liveEntries(store.entries));
const { chosenKey, steps, all, step, isBegun, choose, toSuggested, stepOf } = useSteps(live);
const closePath = computed(() => `/jobs/${props.id}/close`);
const outcome = computed(() => {
  const last = store.entries.findLast((entry) => entry.body.kind === 'job.closed');
  return last?.body.kind === 'job.closed' ? last.body.outcome : 'repaired';
});
const entryWords = (id: string): string => {
  const entry = store.entries.find((one) => one.id === id);
  return entry ? words(entry, store.entries).title : id;
};
const theories = computed(() => live.value.flatMap(({ body }) => (body.kind === 'theory.told' ? [body] : [])));
const waits = computed(() => openWaits(live.value));
const shown = computed(() => {
  if (then.value === undefined || !store.input || !store.compiled) return store.fold;
  return foldCase(asOf(store.input, then.value), store.compiled, store.policy, 'at-once');
});
const layout = computed(() => (shown.value?.set.layout === undefined ? undefined : store.compiled?.layouts.get(shown.value.set.layout)));

const effects = useEffects();
const courseOpen = ref(false);
watch(
  () => [store.input, store.compiled] as const,
  ([input, compiled]) => {
    if (input && compiled) effects.look(input, compiled);
  },
  { immediate: true },
);
const repairFailed = computed(() => {
  const last = store.entries.findLast((entry) => entry.body.kind === 'repair.done');
  return last?.body.kind === 'repair.done' && last.body.result === 'unchanged';
});
/** The symptom is what was told: nobody at the bench has said that the set does it. */
const onlyTold = computed(
  () =>
    store.fold?.closed === false &&
    store.fold.symptoms.length > 0 &&
    !live.value.some(({ body }) => body.kind === 'symptom.reported' && body.seen === true),
);
/** Another symptom came and nobody has said which. */
const complaintOpen = computed(() => store.fold?.symptoms.length === 0 && store.fold.doubts.some(({ code }) => code === 'symptom-changed'));

watch(
  () => props.id,
  () => {
    chosenKey.value = '';
    chosenNode.value = '';
    then.value = undefined;
  },
);
const now = useNow();
/** Ends that were noticed. */
const seen = new Set<number>();
/** A wait that is over asks for its answer: its step comes to the front. */
watch(
  () => waits.value.filter(({ endsAt }) => endsAt <= now.value && !seen.has(endsAt)).map(({ toward, endsAt }) => ({ toward, endsAt })),
  (over) => {
    for (const { toward, endsAt } of over) {
      seen.add(endsAt);
      const found = stepOf(toward);
      if (found) choose(found);
    }
  },
);
watch(step, (one) => {
  if (!aloud.value || !one) return;
  const test = one.kind === 'test' ? store.compiled?.tests.get(one.id) : undefined;
  say(
    [names.step(one.kind, one.id, one.kind === 'test' ? one.of : undefined), textOf(test?.how), textOf(test?.watch)]
      .filter(Boolean)
      .join('. '),
  );
});

async function write(bodies: Body[]): Promise<void> {
  const answered = bodies.some((body) => body.kind === 'test.answered' || body.kind === 'repair.done' || body.kind === 'blink.read');
  const written = store.write(...bodies);
  toTheStep();
  if (answered) {
    window.scrollTo({ top: 0 });
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
/** A refused note is typed anew from what it was. */
function editNote(text: string): void {
  note.value = text;
  noteField.value?.focus();
}
async function takeQuick(taken: readonly QuickBody[], notes: readonly string[]): Promise<void> {
  await write([...taken, ...notes.map((text): Body => ({ kind: 'note.added', v: 1, text }))]);
}
const doubtName = (code: DoubtCode, id: string): string =>
  code === 'done-live' ? names.place(id) : code === 'outside-family' ? textOf(store.compiled?.families.get(id)?.name) : names.test(id);
function take(other: NextStep): void {
  choose(other);
  chosenNode.value = '';
  window.scrollTo({ top: 0 });
  toTheStep();
}
/** The step comes to the front, and what lay over it goes. */
function takeFromSheet(step: NextStep): void {
  instruments.value?.close();
  take(step);
}
/** Keys go to the step again, whatever was pressed last; never away from somebody who types. */
function toTheStep(): void {
  const at = document.activeElement;
  if (at instanceof HTMLButtonElement || at instanceof SVGElement) panel.value?.focus();
}
async function pick(id: string): Promise<void> {
  chosenNode.value = chosenNode.value === id ? '' : id;
  await nextTick();
}
function change(made: Partial<BodyOf<'set.changed'>>): void {
  band.value?.attempt(made);
}
function savePlan(): void {
  const text = plan.value?.exported() as string | undefined;
  if (text) saveBlob(new Blob([text], { type: 'image/svg+xml' }), `plan-${store.job?.number ?? ''}.svg`);
}

/** An address that names an entry leads to it. */
async function toEntry(): Promise<void> {
  await nextTick();
  if (location.hash.startsWith('#e')) document.getElementById(location.hash.slice(1))?.scrollIntoView({ block: 'center' });
}

/** Keys belong to the bench unless somebody is typing. */
function onKey(event: KeyboardEvent): void {
  if (event.altKey && event.code === 'KeyQ') {
    event.preventDefault();
    quick.value?.focus();
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const target = event.target as HTMLElement;
  if (target.closest('textarea, select') || (target instanceof HTMLInputElement && !['checkbox', 'file'].includes(target.type))) return;
  // Space on a button that has the focus would press it a second time; on a photo’s it opens the camera.
  if (event.key === ' ' && target instanceof HTMLInputElement) return;
  if (event.key === ' ' && target instanceof HTMLButtonElement && !target.closest('[data-test="walk"]')) return;
  const asked = pressed(event.key);
  if (asked && used(asked)) event.preventDefault();
}
function used(asked: Pressed): boolean {
  const { command } = asked;
  if (coach.value?.press()) return true;
  if (then.value !== undefined) {
    if (command === 'back') then.value = undefined;
    return command === 'back';
  }
  if (chosenNode.value !== '' && nodeSheet.value?.press(asked)) return true;
  if (instruments.value?.press(asked) === true) return true;
  if (command === 'far') far.value = !far.value;
  else if (command === 'aloud') aloud.value = !aloud.value;
  else if (command === 'quick') quick.value?.focus();
  else if (command === 'note') noteField.value?.focus();
  else if (command === 'plan') plan.value?.focus();
  else if (command === 'symptom' && onlyTold.value) complaintLine.value?.confirm();
  else if (command === 'doubtful') doubtfulOpen.value = !doubtfulOpen.value;
  else if (band.value?.press(asked) === true) return true;
  else if (others.value?.press(asked) === true) return true;
  else if (command === 'back') {
    toSuggested();
    instruments.value?.close();
  } else return panel.value?.press(asked) === true;
  return true;
}
const complaintLine = ref<InstanceType<typeof ComplaintLine>>();
/** What a narrow window shows beside the state of the set. */
const panes = ['step', 'set', 'log'] as const;
const pane = ref<(typeof panes)[number]>('step');
const doubtfulOpen = ref(false);
watch(repairFailed, (failed) => (doubtfulOpen.value ||= failed), { immediate: true });
const shop = useShopSettings();
onMounted(() => window.addEventListener('keydown', onKey));
onUnmounted(() => window.removeEventListener('keydown', onKey));
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold, compiled }" @opened="toEntry">
    <div class="benchpage" :class="{ far }" :data-pane="pane">
      <div class="band">
        <h1>
          <span class="figure" data-test="job-number">{{ t('bench.job', { n: job.number }) }}</span>{{ ' ' }}
          <RouterLink v-if="compiled.families.has(store.input?.set.family ?? '')" :to="`/families/${store.input?.set.family}`" class="plate"
            >{{ job.plate.maker }} {{ job.plate.model }}</RouterLink
          >
          <template v-else>{{ job.plate.maker }} {{ job.plate.model }}</template>
        </h1>
        <p class="spent">
          <span class="figure">{{
            t('bench.costSoFar', { minutes: Math.round(fold.spent.minutes), amount: money(fold.spent.total) })
          }}</span>
          <span v-if="fold.spent.parts.amountMinor > 0" class="soft">{{ t('bench.ofItParts', { amount: money(fold.spent.parts) }) }}</span>
          <span
            v-if="fold.spent.limit || fold.spent.limitMinutes !== undefined"
            :class="fold.spent.over.money || fold.spent.over.minutes ? 'alarm' : 'soft'"
            data-test="agreed"
            >{{
              t(fold.spent.over.money || fold.spent.over.minutes ? 'bench.overAgreed' : 'bench.agreed', {
                what: [
                  fold.spent.limit && money(fold.spent.limit),
                  fold.spent.limitMinutes !== undefined && `${fold.spent.limitMinutes} min`,
                ]
                  .filter(Boolean)
                  .join(', '),
              })
            }}</span
          >
          <span v-if="fold.spent.byTheBook > 0" class="soft">{{
            t('bench.ofItByTheBook', { minutes: Math.round(fold.spent.byTheBook) })
          }}</span>
        </p>
        <JobChanges :fold="fold" :live="live" :currency="job.settings.currency" @write="write" />
        <ComplaintLine
          v-if="onlyTold && then === undefined"
          ref="complaintLine"
          :compiled="compiled"
          :symptoms="fold.symptoms"
          @write="write"
        />
      </div>
      <StateBand ref="band" :fold="fold" :compiled="compiled" :shop="shop" :waits="waits" @write="write" />
      <ComebackLine v-if="!fold.closed && then === undefined" :job="job" :live="live" @write="write" />
      <TrialLine v-if="!fold.closed" :live="live" @write="write" />
      <PartsLine v-if="!fold.closed" :live="live" :job-id="id" />
      <p v-if="!store.reached" class="sheet alarm" role="alert" data-test="not-reached">
        {{ t('common.notReached') }}. {{ t('bench.waiting', { n: store.waiting.length }) }}.
        <button type="button" class="plain" @click="store.flush()">{{ t('bench.sendNow') }}</button>
      </p>
      <PracticeCoach
        v-if="practiceJob === id && then === undefined"
        ref="coach"
        :step="step"
        :asks="panel?.asks ?? 'answer'"
        :fold="fold"
        :compiled="compiled"
        :entries="store.entries"
      />
      <RefusedEntries :compiled="compiled" @edit="editNote" />
      <p v-if="then !== undefined" class="sheet then" role="status" data-test="as-of">
        {{ t('bench.asOf.told', { n: then }) }}
        <button type="button" class="push" @click="then = undefined"><KeyCap :label="cap('back')" />{{ t('bench.asOf.back') }}</button>
      </p>
      <div class="panes" role="tablist" :aria-label="t('bench.pane.title')">
        <button
          v-for="one in panes"
          :key="one"
          type="button"
          role="tab"
          class="plain"
          :aria-selected="pane === one"
          :data-test="`pane-${one}`"
          @click="pane = one"
        >
          {{ t(`bench.pane.${one}`) }}
        </button>
      </div>
      <div class="bench">
        <div class="column" data-column="step">
          <section v-if="fold.closed" class="sheet" role="status">
            <h1>{{ t('bench.closed', { outcome: t(`outcome.${outcome}`) }) }}</h1>
            <RouterLink :to="`/jobs/${id}/handover`" class="push full" data-test="closed-handover">{{ t('handover.title') }}</RouterLink>
          </section>
          <NewComplaint v-else-if="complaintOpen && then === undefined" :compiled="compiled" @write="write" />
          <section v-else-if="!session.writes('set.changed') && then === undefined" class="sheet" data-test="counter-only">
            <p>{{ t('bench.counterOnly') }}</p>
            <RouterLink :to="`/jobs/${id}/call`" class="push">{{ t('call.title') }}</RouterLink>
          </section>
          <NextPanel
            v-else-if="step && then === undefined"
            ref="panel"
            :step="step"
            :chosen="step !== steps[0]"
            :begun="isBegun"
            :fold="fold"
            :compiled="compiled"
            :think-so="thinkSo"
            :close-path="closePath"
            :shop="shop"
            :entries="store.entries"
            :family="store.input?.set.family"
            :waits="waits"
            @write="write"
            @toggle-think-so="thinkSo = !thinkSo"
            @back="toSuggested"
            @instrument="(one) => instruments?.openInstrument(one)"
          />
          <section
            v-else-if="store.settling && then === undefined && !complaintOpen && !fold.closed"
            class="sheet"
            role="status"
            data-test="settling"
          >
            <p>{{ t('bench.settling') }}</p>
          </section>
        </div>
        <div class="column" data-column="set">
          <section class="sheet plansheet">
            <div class="planline">
              <LayoutFound :fold="fold" :compiled="compiled" :family="store.input?.set.family" @write="write" />
              <span class="soft" :title="t('bench.planKeys')"><KeyCap :label="cap('plan')" /></span>
              <button type="button" class="plain" data-test="save-plan" @click="savePlan">{{ t('bench.savePlan') }}</button>
            </div>
            <SetPlan
              v-if="layout && shown"
              ref="plan"
              :layout="layout"
              :assemblies="shown.assemblies"
              :compiled="compiled"
              :out="shown.set.out"
              :taped="shown.set.taped"
              :bridged="shown.set.bridged"
              :chosen="chosenNode"
              @pick="pick"
            />
          </section>
          <NodeSheet
            v-if="chosenNode !== '' && !fold.closed && then === undefined"
            :id="chosenNode"
            ref="nodeSheet"
            class="sheet scrolls"
            :fold="fold"
            :compiled="compiled"
            :steps="all"
            :entry-words="entryWords"
            @take="take"
            @change="change"
            @close="chosenNode = ''"
          />
          <section class="sheet scrolls suspectsheet" tabindex="-1">
            <details v-if="fold.doubts.length > 0" class="doubts" data-test="doubts" open>
              <summary>{{ t('bench.doubts') }} ({{ fold.doubts.length }})</summary>
              <p v-for="(doubt, index) in fold.doubts" :key="index">
                {{
                  t(`core.doubt.${doubt.code}`, {
                    id: doubt.id === undefined ? '' : doubtName(doubt.code, doubt.id),
                    percent: percent(doubt.value ?? 0),
                  })
                }}
              </p>
            </details>
            <h2>{{ t('bench.suspects') }}</h2>
            <SuspectList :assemblies="(shown ?? fold).assemblies" :compiled="compiled" :entry-words="entryWords" :theories="theories" />
            <NewerCounts v-if="store.input && !fold.closed" :key="id" :input="store.input" :fold="fold" @write="write" />
            <DoubtfulList
              v-if="store.input && !fold.closed"
              :input="store.input"
              :compiled="compiled"
              :open="doubtfulOpen"
              @toggle="doubtfulOpen = !doubtfulOpen"
            />
          </section>
        </div>
        <div class="column" data-column="log">
          <section class="sheet ledgersheet">
            <LedgerList
              :entries="store.entries"
              :fold="fold"
              :compiled="compiled"
              :waiting="store.waitingIds"
              :people="session.people"
              :effects="effects.answer.value ?? []"
              :as-of="then"
              @take-back="takeBack"
              @as-of="(seq) => (then = then === seq ? undefined : seq)"
              @course="courseOpen = true"
            />
            <CourseSheet
              v-if="courseOpen"
              :number="job.number"
              :entries="store.entries"
              :effects="effects.answer.value ?? []"
              :compiled="compiled"
              @close="courseOpen = false"
            />
            <QuickLine v-if="store.input && !fold.closed" ref="quick" :input="store.input" :compiled="compiled" @take="takeQuick" />
            <form class="note" @submit.prevent="addNote">
              <label for="note" class="visually-hidden">{{ t('bench.note') }}</label>
              <input id="note" ref="noteField" v-model="note" :placeholder="t('bench.note')" />
              <button type="submit" class="push">{{ t('bench.noteAdd') }}</button>
            </form>
          </section>
          <OtherSteps
            v-if="!fold.closed && !complaintOpen && then === undefined"
            ref="others"
            class="scrolls"
            :others="steps.filter((one) => one !== step)"
            :fold="fold"
            :compiled="compiled"
            :policy="store.policy"
            @take="take"
            @policy="(policy) => (store.policy = policy)"
          />
        </div>
      </div>
      <footer class="foot">
        <InstrumentShelf
          v-if="!fold.closed && then === undefined"
          ref="instruments"
          :fold="fold"
          :compiled="compiled"
          :entries="store.entries"
          :family="store.input?.set.family"
          :shop="shop"
          :steps="all"
          :current="step?.id"
          @write="write"
          @take="takeFromSheet"
          @charge="(volts) => band?.enterCharge(volts)"
          @change="change"
        />
        <div class="papers">
          <RouterLink v-if="!fold.closed" :to="closePath" class="push" data-test="to-close">{{ t('bench.toClose') }}</RouterLink>
          <RouterLink :to="`/jobs/${id}/flash`" data-test="to-flash">{{ t('flash.short') }}</RouterLink>
          <RouterLink :to="`/jobs/${id}/parts`" data-test="to-parts">{{ t('parts.title') }}</RouterLink>
          <RouterLink :to="`/jobs/${id}/proof`" data-test="to-proof">{{ t('proof.short') }}</RouterLink>
          <details class="documents" data-test="documents">
            <summary>{{ t('bench.documents') }}</summary>
            <div>
              <RouterLink :to="`/jobs/${id}/call`" data-test="to-call">{{ t('bench.call') }}</RouterLink>
              <RouterLink :to="`/jobs/${id}/worth`">{{ t('worth.title') }}</RouterLink>
              <RouterLink :to="`/jobs/${id}/handover`" data-test="to-handover">{{ t('handover.title') }}</RouterLink>
              <a :href="`/api/jobs/${id}/label.pdf`" target="_blank">{{ t('bench.label') }}</a>
              <a :href="`/api/jobs/${id}/receipt.pdf`" target="_blank">{{ t('bench.receipt') }}</a>
              <a :href="`/api/jobs/${id}/case`" :download="`job-${job.number}.json`">{{ t('bench.export') }}</a>
            </div>
          </details>
        </div>
      </footer>
    </div>
  </JobGate>
</template>

<style scoped>
.plate {
  color: inherit;
  text-decoration: underline dotted;
}
.band {
  display: flex;
  justify-content: space-between;
  align-items: center;
  flex-wrap: wrap;
  gap: 0 18px;
}
.band h1 {
  font-size: 21px;
}
.spent {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-right: auto;
}
.bench {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 0.95fr);
  gap: 10px;
  align-items: start;
}
.column {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  min-width: 0;
}
.plansheet {
  padding: 6px;
}
.planline {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 14px;
}
.planline > :first-child {
  flex: 1;
  min-width: 0;
}
.planline > .plain {
  flex: none;
}
.documents {
  position: relative;
}
.documents summary {
  display: flex;
  align-items: center;
  min-height: 40px;
  color: var(--accent);
  font-weight: 600;
  cursor: pointer;
}
.documents > div {
  position: absolute;
  right: 0;
  bottom: 100%;
  z-index: 30;
  display: grid;
  min-width: 180px;
  padding: 4px 16px;
  background: var(--surface);
  border: 1.5px solid var(--accent);
  border-radius: var(--radius);
}
.documents a {
  display: flex;
  align-items: center;
  min-height: 40px;
}
.foot,
.papers {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
.foot {
  position: relative;
  justify-content: space-between;
  margin-top: 8px;
}
.then {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 14px;
  margin-bottom: 8px;
  border-left: 8px double var(--accent);
  font-weight: 600;
}
.doubts {
  border-left: 6px dotted var(--alarm);
  padding-left: 10px;
  margin-bottom: 6px;
}
.doubts summary {
  min-height: 24px;
  font-weight: 700;
  color: var(--ink-soft);
  cursor: pointer;
}
.note {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
.note input {
  flex: 1;
  min-width: 0;
  min-height: 40px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
}
.panes {
  display: none;
}

/* A window of a bench's screen: everything is on it, and what can be long scrolls in itself. */
@media (min-width: 1000px) and (min-height: 640px) {
  .benchpage {
    display: flex;
    flex-direction: column;
    height: 100%;
    min-height: 0;
  }
  .bench {
    flex: 1;
    min-height: 0;
    align-items: stretch;
  }
  .column {
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .column > * {
    flex: none;
  }
  .scrolls,
  .ledgersheet {
    overflow-y: auto;
    min-height: 0;
  }
  .column[data-column='step'] {
    overflow-y: auto;
  }
  .column[data-column='step'] > * {
    flex: 0 1 auto;
  }
  /* The plan gives way to the suspects, down to what can still be read. */
  .plansheet :deep(svg.plan) {
    max-height: max(190px, calc(100dvh - 532px));
  }
  .suspectsheet {
    flex: 1 1 0;
    padding: 6px 12px;
  }
  .ledgersheet {
    display: flex;
    flex-direction: column;
    flex: 2.6 1 0;
    overflow: hidden;
    padding: 8px 12px;
  }
  .ledgersheet :deep(.ledger) {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
  }
  .column[data-column='log'] > .scrolls {
    flex: 1 1 0;
    min-height: 132px;
    padding: 8px 12px;
  }
}
/* A tablet upright or a phone: safety, step and answers; the rest by tabs. */
@media (max-width: 999.98px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
  }
  .panes {
    display: flex;
    gap: 4px;
    border-bottom: 1.5px solid var(--line);
    margin-bottom: 8px;
  }
  .panes button {
    flex: 1;
    min-height: 44px;
    padding: 0 6px;
    text-decoration: none;
    border-bottom: 3px solid transparent;
  }
  .panes [aria-selected='true'] {
    border-bottom-color: var(--accent);
    font-weight: 700;
  }
  [data-pane='step'] .column:not([data-column='step']),
  [data-pane='set'] .column:not([data-column='set']),
  [data-pane='log'] .column:not([data-column='log']) {
    display: none;
  }
}
/* From two metres: one step, nothing else. */
.far .bench {
  grid-template-columns: 1fr;
}
.far .column + .column,
.far .panes {
  display: none;
}
.far :deep(.next) {
  font-size: 24px;
}
.far :deep(.next h1) {
  font-size: 44px;
}
.far :deep(.how),
.far :deep(.watch),
.far :deep(.answer),
.far :deep(.walk li.now) {
  font-size: 30px;
}
.far :deep(.answer) {
  min-height: 72px;
}
.far .bench :deep(.keycap) {
  font-size: 28px;
}
</style>
