<script setup lang="ts">
/** One session: the sequence, the step that is selected with what keeps it shut, and what the evidence says. */
import { flashSentence, flashWords, stepOfWork, type FlashHistory, type ImageFacts, type ShopSettings } from '@veglia/contract';
import {
  familyHints,
  flashCautions,
  flashCourse,
  flashFindings,
  flashReadiness,
  foldFlash,
  nextFlashStep,
  openWaits,
  overrideReasons,
  stageOfMemory,
  targetOf,
  type Body,
  type BodyOf,
  type CaseFold,
  type CompiledPack,
  type Entry,
  type FlashAim,
  type FlashDid,
  type FlashGate,
  type FlashSession,
  type FlashUnsafe,
} from '@veglia/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import { useCoarseNow } from '../../stores/clock.ts';
import { useJob } from '../../stores/job.ts';
import { useProgrammers } from '../../stores/programmers.ts';
import { textOf } from '../../stores/packs.ts';
import KeyCap from '../../parts/KeyCap.vue';
import UnreadCautions from '../../parts/UnreadCautions.vue';
import { cap, type Pressed } from '../bench/keymap.ts';
import { pressStep } from '../bench/stepKeys.ts';
import ConsentBox from '../bench/ConsentBox.vue';
import BootForm from './BootForm.vue';
import ChooseForm from './ChooseForm.vue';
import CourseList from './CourseList.vue';
import IdentifyForm from './IdentifyForm.vue';
import LastForm from './LastForm.vue';
import OpenMemory from './OpenMemory.vue';
import ReadForm from './ReadForm.vue';
import TargetForm from './TargetForm.vue';
import SupplyForm from './SupplyForm.vue';
import { copyWait, shortHash, stepTitle } from './titles.ts';
import WayForm from './WayForm.vue';
import WriteForm from './WriteForm.vue';

const props = defineProps<{
  session: FlashSession;
  fold: CaseFold;
  compiled: CompiledPack;
  shop: ShopSettings;
  live: readonly Entry[];
  family: string | undefined;
  facts: Omit<ImageFacts, 'area'>;
  /** What the last step answered on the Bench. */
  answered: string;
}>();
const emit = defineEmits<{
  did: [did: FlashDid];
  write: [bodies: Body[]];
  attempt: [change: Partial<BodyOf<'set.changed'>>];
  charge: [];
}>();
const { t } = useI18n();
const now = useCoarseNow();
const job = useJob();
const bench = useProgrammers(
  () => props.session.id,
  () => props.session.opened.memory,
  () => void job.catchUp(),
);
/** While a programmer is at work its step is the one on the screen: that it began says nothing of how it ends. */
const atWork = computed((): FlashAim | undefined => {
  const run = bench.run.value;
  if (run?.endedAt !== null || run.work === 'identify' || run.area === null) return undefined;
  return { step: stepOfWork[run.work], area: run.area };
});
/** As it stood when that began. */
const shown = computed((): FlashSession => {
  const { id, did } = props.session;
  const at = atWork.value ? did.findLastIndex(({ step }) => step === 'began') : -1;
  return (at < 0 ? undefined : foldFlash(id, did.toSpliced(at, 1))) ?? props.session;
});
const course = computed(() => flashCourse(shown.value));
const due = computed(() => atWork.value ?? nextFlashStep(props.session));
/** Place in the course of a step that was selected by hand; undefined: the one that is due. */
const selected = ref<number>();
watch(
  () => props.session.did.length,
  () => (selected.value = undefined),
);
const aim = computed((): FlashAim | undefined =>
  selected.value === undefined || atWork.value ? due.value : course.value[selected.value]?.aim,
);
const at = computed(() => selected.value ?? course.value.findIndex(({ state }) => state === 'due'));
const area = computed(() => props.session.areas.find((one) => one.area === aim.value?.area));
const factsHere = computed((): ImageFacts => ({ ...props.facts, area: area.value?.area ?? 'whole' }));
const supplyBefore = computed(() => props.session.did.findLast((one) => one.step === 'supply'));

const target = computed(() => targetOf(props.session));
/** How the service menu of this family is opened, and remotes that worked. */
const settingHints = computed(() => familyHints({ do: [{ press: 'service' }] }, props.compiled.families.get(props.family ?? '')));
/** What this shop has seen on such a board; nothing where the server is away. */
const history = shallowRef<FlashHistory>({ trials: [], settings: [] });
watch(
  () => [target.value?.board, target.value?.panel] as const,
  async ([board, panel]) => {
    if (board === undefined) return;
    try {
      const reply = await api.flashHistory(board, panel);
      if (reply.ok) history.value = reply.value;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  },
  { immediate: true },
);

/** A timer of this step’s copy runs. */
const waiting = computed(() => {
  const step = aim.value?.step;
  return step !== undefined && openWaits(props.live).some(({ name }) => name === copyWait(t, props.session, step));
});

/** Each is read once a job. */
const cautions = computed(() => {
  const ids = aim.value ? flashCautions(aim.value, props.compiled, props.fold.set.layout) : [];
  return props.compiled.pack.cautions.filter(({ id }) => ids.includes(id));
});
const ready = computed(() =>
  aim.value === undefined
    ? undefined
    : flashReadiness(
        aim.value,
        props.session,
        { live: props.live, set: props.fold.set, cautionsRead: props.fold.cautionsRead },
        props.compiled,
        { now: now.value, lapseMinutes: props.shop.lapseMinutes },
      ),
);
const unread = computed(() => cautions.value.filter(({ id }) => ready.value?.unread.includes(id)));
const consents = computed(() => ready.value?.consents ?? []);
const gates = computed(() => (atWork.value ? [] : (ready.value?.gates ?? [])));
const unsafe = computed(() => ready.value?.unsafe);
const open = computed(() => atWork.value !== undefined || ready.value?.open === true);
const findings = computed(() => flashFindings(shown.value));

function makeSafe(code: FlashUnsafe): void {
  if (code === 'open-first')
    emit('attempt', { stage: props.compiled.stageIds[stageOfMemory(props.compiled, props.fold.set.layout)] ?? '' });
  else if (code === 'unplug-first') emit('attempt', { plugged: false });
  else if (code === 'down-first') emit('attempt', { railsDown: true });
  else emit('charge');
}
/** The step on the screen; its buttons are pressed by key as by hand. */
const sheet = ref<HTMLElement>();
/** True where the key was one of this step’s. */
const press = (key: Pressed): boolean => pressStep(sheet.value, key, ['make-safe', 'programmer-start', 'record-step']);
defineExpose({ press });
const overriding = ref<FlashGate | ''>('');
const reason = ref<(typeof overrideReasons)[number]>('chip-unreadable');
function override(): void {
  const gate = overriding.value;
  if (gate === '') return;
  emit('did', { step: 'overrode', gate, reason: reason.value, ...(aim.value?.area === undefined ? {} : { area: aim.value.area }) });
  overriding.value = '';
}
</script>

<template>
  <div class="steps">
    <div class="side">
      <section
        ref="sheet"
        class="sheet now"
        data-test="flash-step"
        :data-step="aim?.step ?? ''"
        :data-area="aim?.area"
        :data-did="session.did.length"
      >
        <p class="inline">
          <span class="soft">{{ t(selected === undefined ? 'flash.next' : 'flash.selected') }}</span>
          <button v-if="selected !== undefined" type="button" class="plain" @click="selected = undefined">{{ t('flash.toNext') }}</button>
        </p>
        <p v-if="answered" role="status" data-test="flash-answered">{{ t('flash.answers', { what: answered }) }}</p>
        <p v-if="!aim" data-test="flash-ended">{{ t('flash.ended') }}</p>
        <template v-else>
          <h2 class="title">{{ stepTitle(t, aim) }}</h2>
          <p v-if="aim.step !== 'way-out'">{{ t(`flash.how.${aim.step}`) }}</p>
          <UnreadCautions
            v-if="unread.length > 0"
            :cautions="unread"
            :stage="fold.set.stageId"
            data-test="flash-cautions"
            @write="(bodies) => emit('write', bodies)"
          />
          <details v-else-if="cautions.length > 0" class="cautions" data-test="flash-cautions">
            <summary>{{ t('bench.cautionsLine', cautions.length) }}</summary>
            <ul>
              <li v-for="one in cautions" :key="one.id">{{ textOf(one.text) }}</li>
            </ul>
          </details>
          <ul v-if="gates.length > 0" class="gates" data-test="flash-gates">
            <li v-for="gate in gates" :key="gate" :data-gate="gate">
              <span class="alarm">{{ flashWords.en.gate[gate] }}</span>
              <button
                type="button"
                class="plain"
                :aria-expanded="overriding === gate"
                @click="overriding = overriding === gate ? '' : gate"
              >
                {{ t('flash.override') }}
              </button>
              <form v-if="overriding === gate" class="inline" @submit.prevent="override">
                <ChoiceField
                  id="flash-reason"
                  v-model="reason"
                  :label="t('flash.overrideReason')"
                  :options="overrideReasons.map((value) => ({ value, label: t(`flash.reason.${value}`) }))"
                />
                <button type="submit" class="push" data-test="override">{{ t('flash.overrideGate') }}</button>
              </form>
            </li>
          </ul>
          <ConsentBox v-if="consents[0] && unread.length === 0" :consent="consents[0]" @write="(bodies) => emit('write', bodies)" />
          <p v-if="unsafe && unread.length === 0" class="unsafe" data-test="flash-unsafe" :data-unsafe="unsafe">
            <span class="alarm">{{ flashWords.en.unsafe[unsafe] }}</span>
            <button type="button" class="push full" data-test="make-safe" @click="makeSafe(unsafe)">
              <KeyCap :label="cap('confirm')" />{{ t(`flash.makeSafe.${unsafe}`) }}
            </button>
          </p>
          <template v-if="open">
            <OpenMemory v-if="aim.step === 'opened'" :before="session.opened" @did="(did) => emit('did', did)" />
            <SupplyForm v-else-if="aim.step === 'supply'" :before="supplyBefore" @did="(did) => emit('did', did)" />
            <WayForm v-else-if="aim.step === 'entered'" :session="session" @did="(did) => emit('did', did)" />
            <IdentifyForm
              v-else-if="aim.step === 'identified'"
              :of="aim.of"
              :session="session"
              :bench="bench"
              @did="(did) => emit('did', did)"
            />
            <BootForm
              v-else-if="aim.step === 'boot-config'"
              :key="aim.of"
              :of="aim.of === 'new-one' ? 'new-one' : 'this'"
              :session="session"
              @did="(did) => emit('did', did)"
            />
            <ReadForm
              v-else-if="(aim.step === 'read' || aim.step === 'rebuilt') && area"
              :session="session"
              :area="area"
              :facts="factsHere"
              :bench="bench"
              :waiting="waiting"
              @did="(did) => emit('did', did)"
              @write="(bodies) => emit('write', bodies)"
            />
            <ChooseForm
              v-else-if="aim.step === 'chosen' && area"
              :key="area.area"
              :session="session"
              :area="area"
              :facts="factsHere"
              :trials="history.trials"
              :many="session.areas.length > 1"
              @did="(did) => emit('did', did)"
            />
            <WriteForm
              v-else-if="(aim.step === 'erased' || aim.step === 'blank' || aim.step === 'programmed' || aim.step === 'verified') && area"
              :step="aim.step"
              :session="session"
              :area="area"
              :facts="factsHere"
              :emmc="session.opened.memory === 'emmc'"
              :bench="bench"
              :waiting="waiting"
              @did="(did) => emit('did', did)"
              @write="(bodies) => emit('write', bodies)"
            />
            <LastForm
              v-else-if="aim.step === 'fitted' || aim.step === 'way-out' || aim.step === 'started' || aim.step === 'setting'"
              :key="aim.step"
              :step="aim.step"
              :session="session"
              :won="history.settings"
              :hints="settingHints"
              @did="(did) => emit('did', did)"
            />
          </template>
        </template>
      </section>
      <section class="sheet" data-test="flash-known">
        <h2>{{ t('flash.known') }}</h2>
        <p>
          {{ session.opened.name }}, {{ t(`memory.${session.opened.memory}`)
          }}{{ session.opened.marking ? `, ${session.opened.marking}` : '' }}. {{ t(`flash.plan.${session.opened.plan}`) }}.
        </p>
        <p v-for="one in findings" :key="one" :data-finding="one">{{ flashSentence(flashWords.en, one) }}</p>
        <template v-for="one in session.areas" :key="one.area">
          <p v-if="one.chosen" class="reading">
            {{ t('flash.chosenIs', { hash: shortHash(one.chosen.sha256) }) }} ({{ t(`flash.fit.${one.chosen.fit}`) }})
          </p>
        </template>
      </section>
    </div>
    <div class="side">
      <section class="sheet">
        <h2>{{ t('flash.course') }}</h2>
        <CourseList :course="course" :current="at" @choose="(index) => (selected = index)" />
      </section>
      <TargetForm :target="target" :board="facts.board" @did="(did) => emit('did', did)" />
    </div>
  </div>
</template>

<style scoped>
.steps {
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
.side {
  display: grid;
  gap: 10px;
}
.cautions {
  display: grid;
  gap: 6px;
  padding: 8px 12px;
  background: var(--alarm-wash);
  border: 1px solid var(--alarm);
  border-radius: var(--radius);
}
.unsafe {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
}
@media (max-width: 900px) {
  .steps {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
