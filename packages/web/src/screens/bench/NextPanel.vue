<script setup lang="ts">
/** One step, large: what to do, what to watch, what it may do to you, and one key an answer. */
import {
  comparisonSentence,
  gearToProve,
  instrumentWords,
  reasonSentence,
  words,
  type Language,
  type ShopSettings,
} from '@veglia/contract';
import {
  compareSteps,
  familyHints,
  flashInstruments,
  instrumentsFor,
  isLongShot,
  linkInstead,
  liveEntries,
  measurementsOf,
  partsOf,
  silentOutcomes,
  type Body,
  type CaseFold,
  type CompiledPack,
  type Entry,
  type NextStep,
  type Wait,
} from '@veglia/core';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { money, percent, useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import { textOf } from '../../stores/packs.ts';
import ConsentBox from './ConsentBox.vue';
import CautionList from './CautionList.vue';
import { newCautions, unreadCautions } from './cautions.ts';
import { useJobBoards } from './jobBoards.ts';
import { useWalk } from './walk.ts';
import ReadingField from './ReadingField.vue';
import LayoutSketch from '../../parts/LayoutSketch.vue';
import WaitLine from './WaitLine.vue';
import WalkPanel from './WalkPanel.vue';
import { cap, type Pressed } from './keymap.ts';

const props = defineProps<{
  step: NextStep;
  /** Another is suggested first. */
  chosen: boolean;
  /** The set was changed for it, or it waits. */
  begun: boolean;
  fold: CaseFold;
  compiled: CompiledPack;
  thinkSo: boolean;
  closePath: string;
  /** What the shop itself warns of is shown with every step that goes inside; its gear, with those that trust it. */
  shop: ShopSettings;
  entries: readonly Entry[];
  family: string | undefined;
  /** Timers that still run or ring, of this job. */
  waits: readonly Wait[];
}>();
const emit = defineEmits<{ write: [bodies: Body[]]; toggleThinkSo: []; back: []; instrument: [id: string] }>();
const { t, locale } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.fold.set.layout,
);

const boards = useJobBoards(
  () => props.entries,
  () => props.compiled,
);
const test = computed(() => (props.step.kind === 'test' ? props.compiled.tests.get(props.step.id) : undefined));
/** Instruments offered beside the step. */
const work = computed(() => {
  const repair = props.step.kind === 'repair' ? props.compiled.pack.repairs.find(({ id }) => id === props.step.id) : undefined;
  const own = test.value ?? repair;
  return own ? instrumentsFor(own).filter((id) => id in instrumentWords.en.instrument) : [];
});
/** Work on a memory is recorded on a screen of its own, and answers the step from there. */
const byFlash = computed(() =>
  props.step.kind === 'repair'
    ? props.compiled.pack.repairs.some(({ id, flashes }) => id === props.step.id && flashes !== undefined)
    : (test.value?.observe.outcomes.some(({ by }) => by?.some(({ instrument }) => flashInstruments.some((one) => one === instrument))) ??
      false),
);
/** A whole assembly is bought, unless one was got for this job already. */
const byPart = computed(() => {
  const repair = props.compiled.pack.repairs.find(({ id }) => id === props.step.id);
  if (props.step.kind !== 'repair' || repair?.kind !== 'replace' || repair.partShare === 0) return false;
  return !partsOf(liveEntries(props.entries)).some(
    ({ assembly, state }) => assembly === repair.assembly && state !== 'dropped' && state !== 'sent-back',
  );
});
const hints = computed(() => (test.value ? familyHints(test.value, props.compiled.families.get(props.family ?? '')) : []));
/** One ribbon feeds both halves of this panel. */
const byLink = computed(() => {
  const { layout } = props.fold.set;
  const families = props.compiled.families;
  return (
    test.value !== undefined &&
    linkInstead(test.value, props.step.of, props.compiled.layouts.get(layout ?? ''), families.get(props.family ?? ''))
  );
});
const instrumentName = (id: string): string => instrumentWords.en.instrument[id]?.name ?? id;
/** Only a step that opens further names how far: another may be done as the set stands. */
const opens = computed(() => props.compiled.stageIds.indexOf(props.step.stage) > props.fold.set.stage);
const unread = computed(() => unreadCautions(props.step, props.fold, props.compiled));
const unreadLeft = computed(() => unread.value.length > 0);
// Cautions come first, then the way there; what is left then is the step itself.
const { progress, consents, walking, anyway, objections, wait, ownWait, startWait, walked, cameBy } = useWalk(props, names, (bodies) =>
  emit('write', bodies),
);
const locked = computed(() => unreadLeft.value || (walking.value && !anyway.value));
const walkPanel = ref<InstanceType<typeof WalkPanel>>();

const answers = computed(() => {
  if (!test.value) return [];
  const own = test.value.observe.outcomes.map((outcome, index) => ({
    key: cap('answer', index),
    outcome: outcome.id,
    name: textOf(outcome.name),
  }));
  return [
    ...own,
    { key: cap('cantTell'), outcome: 'cant-tell', name: t('bench.cantTell') },
    { key: cap('notPossible'), outcome: 'not-possible', name: t('bench.notPossible') },
  ];
});
/** Steps that fit something known to be good, or read a meter, stand on gear that has to be proven now and then. */
const gear = computed(() =>
  test.value?.do.some((step) => 'fit' in step || 'measure' in step)
    ? gearToProve(props.shop.gear, test.value.tools, new Date().toISOString().slice(0, 10))
    : [],
);
/** Ruled-out assemblies named with an answer; of more, only how many. */
const mostNamed = 3;
const preview = (outcome: string): string => {
  const would = props.step.would.find((one) => one.outcome === outcome);
  if (!would) return '';
  const cleared = would.clears.map((id) => names.assembly(id));
  const top = t('bench.would', { id: names.assembly(would.top.id), probability: percent(would.top.probability) });
  const more = cleared.length > mostNamed ? t('bench.wouldMore', { n: cleared.length - mostNamed }) : '';
  return cleared.length === 0 ? top : `${top}; ${t('bench.wouldClear', { what: cleared.slice(0, mostNamed).join(', ') })}${more}`;
};
const why = computed(() => {
  const first = props.chosen ? { ...props.step, because: { ...props.step.because, code: 'chosen-anyway' as const } } : props.step;
  return reasonSentence(first.kind === 'test' ? first : props.step, words[locale.value as Language] ?? words.en, (id) =>
    names.assembly(id),
  );
});

/** Against the second and the third; only the suggested step has to stand up to them. */
const before = computed(() =>
  props.chosen
    ? []
    : compareSteps(props.fold.next).map((one) =>
        comparisonSentence(one, words[locale.value as Language] ?? words.en, (step) =>
          names.step(step.kind, step.id, step.kind === 'test' ? step.of : undefined),
        ),
      ),
);

function answer(outcome: string, raw?: string, reading: Body[] = []): void {
  const current = test.value;
  if (!current || locked.value) return;
  emit('write', [
    ...reading,
    {
      kind: 'test.answered',
      v: 2,
      test: current.id,
      ...(props.step.of === undefined ? {} : { of: props.step.of }),
      outcome,
      sure: props.thinkSo ? 'think-so' : 'sure',
      ...(raw === undefined ? {} : { raw }),
      ...cameBy(),
      words: { test: names.test(current.id, props.step.of), outcome: names.outcome(current.id, outcome) },
    },
  ]);
}
/** The layouts this set can be of, likeliest first; a family knows its own. */
const layouts = computed(() => {
  if (props.step.kind !== 'layout') return [];
  const own = props.compiled.families.get(props.family ?? '')?.layouts;
  return props.compiled.pack.layouts
    .filter(({ id }) => !own || own.includes(id))
    .map((layout, index) => ({ key: cap('answer', index), layout }));
});
/** What was seen inside was seen unplugged and with the cover off: recorded with it. */
function layoutFound(layout: string): void {
  if (locked.value) return;
  const opened: Body[] = props.fold.set.stage > 0 ? [] : [{ kind: 'set.changed', v: 3, plugged: false, stage: props.step.stage }];
  emit('write', [...opened, { kind: 'layout.found', v: 2, layout }]);
}
/** What bars the way is read together with what the step itself brings. */
const news = computed(() => newCautions(props.step, props.fold, props.compiled));
const cautionsOpen = ref(false);
watch(
  () => `${props.step.id} ${props.step.of ?? ''}`,
  () => (cautionsOpen.value = false),
);
function readCautions(): void {
  if (news.value.length > 0) emit('write', [{ kind: 'caution.read', v: 1, cautions: news.value, stage: props.step.stage }]);
}

/** Read on the spot where a step is about the code: the code itself, or the code with a board out. */
const BlinkInJob = defineAsyncComponent(() => import('../blink/BlinkInJob.vue'));
const aboutCode = computed(
  () =>
    props.step.kind === 'blink' ||
    (test.value?.observe.outcomes.some(({ seen }) => seen?.some((one) => 'code' in one && one.code === 'changed')) ?? false),
);
const reading = ref(false);
watch(
  () => props.step.id,
  () => (reading.value = false),
);
/** Heat, cleaning, a swap may clear a code that nobody has read yet. */
const codeInDanger = computed(
  () =>
    props.fold.symptoms.includes('blinking') &&
    !liveEntries(props.entries).some(({ body }) => body.kind === 'blink.read') &&
    (props.step.kind === 'repair' || test.value?.disturbsCode === true),
);
function repaired(result: 'cured' | 'unchanged' | 'changed'): void {
  if (!locked.value) emit('write', [{ kind: 'repair.done', v: 2, repair: props.step.id, result, ...cameBy() }]);
}

const repairAnswers = computed(() =>
  props.step.kind !== 'repair'
    ? []
    : [
        { key: cap('answer', 0), result: 'cured' as const, name: t('bench.repairCured') },
        { key: cap('answer', 1), result: 'unchanged' as const, name: t('bench.repairUnchanged') },
        { key: cap('answer', 2), result: 'changed' as const, name: t('bench.repairChanged') },
      ],
);

const isSilent = (outcome: string): boolean => silentOutcomes.some((one) => one === outcome);
const telling = computed(() => answers.value.filter(({ outcome }) => !isSilent(outcome)));
/** No evidence either way: beside each other, since what they would do is always the same. */
const silent = computed(() => answers.value.filter(({ outcome }) => isSilent(outcome)));

/** Keys arrive from the screen, which knows whether a field has them. True where one was used. */
function press({ command, nth }: Pressed): boolean {
  if (command === 'cautions' && news.value.length > 0) readCautions();
  else if (command === 'cautions' && props.step.cautions.length > 0) cautionsOpen.value = !cautionsOpen.value;
  else if (command === 'confirm') return walkPanel.value?.confirm() === true;
  else if (command === 'anyway' && walking.value && !unreadLeft.value) anyway.value = !anyway.value;
  else if (command === 'wait' && !unreadLeft.value && !wait.value && (progress.value?.next?.waitMinutes ?? ownWait.value) > 0)
    startWait(progress.value?.next?.waitMinutes ?? ownWait.value);
  else if (command === 'thinkSo' && test.value) emit('toggleThinkSo');
  else {
    const key = cap(command, nth);
    const repair = repairAnswers.value.find((one) => one.key === key);
    const found = answers.value.find((one) => one.key === key);
    const seen = layouts.value.find((one) => one.key === key);
    if (locked.value || (!repair && !found && !seen)) return false;
    if (seen) layoutFound(seen.layout.id);
    else if (repair) repaired(repair.result);
    else if (found) answer(found.outcome);
  }
  return true;
}
const title = ref<HTMLElement>();
/** What has to be done before anything else of this step. */
const asks = computed(() =>
  unreadLeft.value
    ? 'cautions'
    : consents.value.length > 0
      ? 'consent'
      : !progress.value?.next
        ? 'answer'
        : progress.value.next.kind === 'verify'
          ? 'charge'
          : 'move',
);
defineExpose({ press, asks, focus: () => title.value?.focus({ preventScroll: true }) });
</script>

<template>
  <section class="sheet next" data-test="next" :data-step="step.id" :data-of="step.of">
    <div class="line">
      <h2>{{ begun ? t('bench.begun') : chosen ? t('bench.taken') : t('bench.next') }}</h2>
      <RouterLink v-if="byFlash" :to="{ name: 'flash', params: { id: $route.params.id } }" class="plain work" data-test="work-flash">{{
        t('flash.opensMain')
      }}</RouterLink>
      <RouterLink v-if="byPart" :to="{ name: 'jobParts', params: { id: $route.params.id } }" class="plain work" data-test="get-part">{{
        t('parts.line.get')
      }}</RouterLink>
      <button v-for="one in work" :key="one" type="button" class="plain work" :data-test="`work-${one}`" @click="$emit('instrument', one)">
        {{ instrumentName(one) }}
      </button>
      <button v-if="chosen" type="button" class="plain back" @click="$emit('back')">
        <KeyCap :label="cap('back')" />{{ t('bench.backToFirst') }}
      </button>
    </div>
    <h1 ref="title" tabindex="-1">{{ names.step(step.kind, step.id, step.kind === 'test' ? step.of : undefined) }}</h1>
    <p v-if="step.kind !== 'stop'" class="facts">
      <span class="figure">{{ t('common.minutes', { n: Math.round(step.minutes * 10) / 10 }) }}</span>
      <span v-if="step.waitMinutes > 0" class="figure">{{ t('common.wait', { n: step.waitMinutes }) }}</span>
      <span>{{ t('bench.cost', { amount: money(step.cost) }) }}</span>
      <span v-if="opens">{{ names.stage(step.stage) }}</span>
      <span v-if="step.needs !== 'any'">{{ t(`core.need.${step.needs}`) }}</span>
      <span v-if="step.kind === 'repair' && step.because.chance !== undefined" class="figure">{{
        t('bench.cures', { probability: percent(step.because.chance) })
      }}</span>
    </p>
    <p v-if="isLongShot(step)" class="alarm" data-test="long-shot">
      {{ t('bench.longShot.told', { probability: percent(step.because.chance ?? 0), amount: money(step.cost) }) }}
    </p>
    <details class="why" data-test="before">
      <summary :title="why">{{ why }}</summary>
      <template v-if="before.length > 0">
        <h3>{{ t('bench.whyFirst') }}</h3>
        <p v-for="sentence in before" :key="sentence">{{ sentence }}</p>
      </template>
    </details>

    <CautionList v-model:open="cautionsOpen" :step="step" :fold="fold" :compiled="compiled" :shop="shop" @read="readCautions" />
    <p v-if="codeInDanger" class="alarm" role="alert" data-test="code-in-danger">{{ t('blink.codeFirst') }}</p>
    <div v-if="unreadLeft" class="line lock">
      <button type="button" class="push full" data-test="read-cautions" @click="readCautions">
        <KeyCap :label="cap('cautions')" />{{ t('bench.readCautions') }}
      </button>
      <span class="soft">{{ t('bench.cautionsFirst') }}</span>
    </div>

    <ConsentBox v-if="consents[0] && !unreadLeft" :consent="consents[0]" @write="(bodies) => emit('write', bodies)" />
    <WalkPanel
      v-if="progress?.next && consents.length === 0"
      ref="walkPanel"
      :progress="progress"
      :compiled="compiled"
      :layout="fold.set.layout"
      :mains-volts="shop.mainsVolts"
      :waiting="wait !== undefined"
      :locked="unreadLeft"
      :repair="step.kind === 'repair'"
      @change="walked"
      @wait="startWait"
    />
    <WaitLine v-if="wait" :wait="wait" :asks="!walking" @write="(bodies) => emit('write', bodies)" />
    <p v-else-if="!walking && ownWait > 0">
      <button type="button" class="push" :disabled="unreadLeft" data-test="start-wait" @click="startWait(ownWait)">
        <KeyCap :label="cap('wait')" />{{ t('bench.wait.start', { n: ownWait }) }}
      </button>
    </p>
    <div v-if="walking && !unreadLeft" class="anyway">
      <button type="button" class="plain" :aria-pressed="anyway" data-test="anyway" @click="anyway = !anyway">
        <KeyCap :label="cap('anyway')" /> {{ anyway ? t('bench.anyway.off') : t('bench.anyway.on') }}
      </button>
      <div v-if="anyway" class="alarm" role="alert" data-test="anyway-told">
        <p>{{ t('bench.anyway.told') }}</p>
        <p v-for="(one, index) in objections" :key="index">
          {{ t(`core.objection.${one.code}`, { id: one.id === undefined ? '' : names.place(one.id), value: one.value }) }}
        </p>
      </div>
    </div>

    <template v-if="test">
      <p class="how">{{ textOf(test.how) }}</p>
      <p class="watch">
        <strong>{{ t('bench.watch') }}</strong> {{ textOf(test.watch) }}
        <span v-if="test.tools.length > 0" class="soft tools"
          >{{ t('bench.tools') }}: {{ test.tools.map((id) => names.tool(id)).join(', ') }}</span
        >
      </p>
      <p v-if="byLink" class="soft" data-test="by-link">{{ t('bench.byLink') }}</p>
      <p v-if="hints.length > 0" class="soft" data-test="family-hints">{{ t('bench.ofFamily') }} {{ hints.join('; ') }}</p>
      <p v-for="one in gear" :key="one.name" class="alarm" data-test="gear">
        {{ one.days === null ? t('bench.gear.never', one) : t('bench.gear.old', { name: one.name, n: one.days }) }}
      </p>
      <ReadingField
        v-if="measurementsOf(test).length > 0 && fold.set.layout !== undefined && (!walking || anyway)"
        :test="test"
        :of="step.of"
        :layout="fold.set.layout"
        :compiled="compiled"
        :family="family"
        :locked="locked"
        :places="boards.places.value"
        @read="(outcome, raw, readings) => answer(outcome, raw, readings)"
      />
      <div v-if="!walking || anyway" class="answers" role="group" :aria-label="t('bench.answers')">
        <button
          v-for="one in telling"
          :key="one.outcome"
          type="button"
          class="answer"
          :disabled="locked"
          :data-outcome="one.outcome"
          @click="answer(one.outcome)"
        >
          <KeyCap :label="one.key" />
          <span class="name">{{ one.name }}</span>
          <span class="soft then" :title="preview(one.outcome)">{{ preview(one.outcome) }}</span>
        </button>
      </div>
      <div v-if="!walking || anyway" class="silents">
        <button
          v-for="one in silent"
          :key="one.outcome"
          type="button"
          class="answer silent"
          :disabled="locked"
          :data-outcome="one.outcome"
          @click="answer(one.outcome)"
        >
          <KeyCap :label="one.key" /><span class="name">{{ one.name }}</span>
        </button>
        <label class="think"
          ><input type="checkbox" :checked="thinkSo" @change="$emit('toggleThinkSo')" /><KeyCap :label="cap('thinkSo')" />{{
            t('bench.thinkSo')
          }}</label
        >
      </div>
    </template>

    <template v-else-if="step.kind === 'layout'">
      <p class="how">{{ t('bench.layoutStep.how') }}</p>
      <div class="layouts" role="group" :aria-label="t('bench.layoutStep.title')">
        <button
          v-for="one in layouts"
          :key="one.layout.id"
          type="button"
          class="answer sketched"
          :disabled="locked"
          :data-layout="one.layout.id"
          @click="layoutFound(one.layout.id)"
        >
          <KeyCap :label="one.key" />
          <span class="name">{{ textOf(one.layout.name) }}</span>
          <LayoutSketch :layout="one.layout" />
        </button>
      </div>
    </template>
    <p v-else-if="step.kind === 'blink'" class="how">{{ t('bench.blinkHow') }}</p>

    <div v-else-if="step.kind === 'repair' && (!walking || anyway)" class="answers">
      <button
        v-for="one in repairAnswers"
        :key="one.result"
        type="button"
        class="answer"
        :disabled="locked"
        :data-outcome="one.result"
        @click="repaired(one.result)"
      >
        <KeyCap :label="one.key" />
        <span class="name">{{ one.name }}</span>
      </button>
      <RouterLink :to="closePath" class="push">{{ t('bench.toClose') }}</RouterLink>
    </div>

    <div v-else-if="step.kind === 'stop'">
      <p class="how">
        {{ step.id === 'prove-and-close' ? t('bench.cured.how') : step.id === 'give-up' ? t('bench.giveUpHow') : t('bench.stopHow') }}
      </p>
      <p class="inline">
        <RouterLink
          v-if="step.id === 'prove-and-close'"
          :to="{ name: 'proof', params: { id: $route.params.id } }"
          class="push full"
          data-test="prove"
          >{{ t('proof.opens') }}</RouterLink
        >
        <RouterLink :to="closePath" class="push">{{ t('bench.toClose') }}</RouterLink>
      </p>
    </div>
    <template v-if="aboutCode">
      <p v-if="step.kind !== 'blink' && !reading">
        <button type="button" class="push here" :disabled="locked" data-test="read-here" @click="reading = true">
          {{ t('blink.open') }}
        </button>
      </p>
      <BlinkInJob
        v-if="(step.kind === 'blink' || reading) && !locked"
        :compiled="compiled"
        :entries="entries"
        :layout="fold.set.layout"
        :family="family"
        :out="step.kind === 'test' ? step.of : undefined"
        :walked="progress !== undefined && !progress.walk.harmless && !walking"
        @write="(bodies) => emit('write', bodies)"
      />
    </template>
  </section>
</template>

<style scoped>
/* As high as a finger, and no higher than its line. */
.work {
  margin: -10px 0;
  padding: 10px 4px;
}
.next {
  padding: 4px 12px 6px;
  border-left: 6px solid var(--accent);
}
.next > .line {
  min-height: 24px;
}
.layouts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px;
}
.sketched {
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
}
.sketched svg {
  grid-column: 1 / -1;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}
h1 {
  margin: 0 0 2px;
  font-size: 23px;
  outline: none;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  font-weight: 600;
}
.why {
  margin: 2px 0;
  color: var(--ink-soft);
}
.why h3 {
  margin-top: 4px;
  font-size: 15px;
}
.why:not([open]) summary {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.how {
  margin: 3px 0 1px;
  line-height: 1.25;
}
.watch {
  margin-bottom: 2px;
  line-height: 1.25;
}
.tools {
  font-size: 14px;
}
.back {
  min-height: 24px;
  padding: 0;
  font-size: 14px;
}
summary {
  cursor: pointer;
  min-height: 22px;
}
.lock {
  margin: 8px 0;
  justify-content: flex-start;
}
.answers {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 3px;
}
.answer {
  display: flex;
  align-items: center;
  gap: 12px;
  min-width: 0;
  min-height: 40px;
  padding: 0 10px;
  border: 1.5px solid var(--accent);
  border-radius: var(--radius);
  background: var(--surface);
  text-align: left;
  font-size: 18px;
  font-weight: 600;
  cursor: pointer;
}
.answer:hover:not(:disabled) {
  background: var(--accent-wash);
}
.answer:disabled {
  border-color: var(--line);
  color: var(--ink-soft);
  cursor: not-allowed;
}
.answer.silent {
  border-color: var(--line);
  font-weight: 400;
}
.answer .name {
  flex: 0 0 auto;
  max-width: 70%;
}
/* What an answer would do, on one line; whole under the pointer. */
.then {
  flex: 1 1 0;
  min-width: 0;
  overflow: hidden;
  font-size: 15px;
  font-weight: 400;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.silents {
  display: flex;
  gap: 4px 6px;
  margin-top: 3px;
  font-size: 15px;
  white-space: nowrap;
}
.silents .answer {
  gap: 6px;
  padding: 0 6px;
  font-size: 15px;
}
.silents .answer .name {
  max-width: none;
}
.think {
  display: flex;
  align-items: center;
  gap: 5px;
  min-height: 40px;
}
.here {
  min-height: 40px;
  padding: 0 12px;
}
.anyway .plain {
  min-height: 34px;
}
.think input {
  width: 22px;
  height: 22px;
  accent-color: var(--accent);
}
</style>
