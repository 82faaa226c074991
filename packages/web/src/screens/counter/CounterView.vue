<script setup lang="ts">
import { jobSettings, newJobSchema, usualShopSettings, type Job, type ShopSettings } from '@veglia/contract';
import {
  caseOfLedger,
  foldCase,
  mayHideSecond,
  secondFaultProbability,
  type CaseFold,
  type CaseInput,
  type Counts,
  type QuickBody,
} from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, nextTick, onMounted, onUnmounted, reactive, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached, reachedServer } from '../../api.ts';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import QuickLine from '../../parts/QuickLine.vue';
import { useLikelyBill } from '../../stores/deeper.ts';
import { draftsOf, dropDraft, holdDraft, keepDraft, type Draft } from '../../stores/drafts.ts';
import { useIntakes } from '../../stores/intakes.ts';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import { useShelf } from '../../stores/shelf.ts';
import AgreedFields from './AgreedFields.vue';
import AskNow from './AskNow.vue';
import AtOnce from './AtOnce.vue';
import CustomerFields from './CustomerFields.vue';
import { blankIntake, bodiesOf, checkIntake, intakeOfDraft, isBlank, requestOf, type Answer, type IntakeErrors } from './intake.ts';
import PhotoStrip from './PhotoStrip.vue';
import SetFields from './SetFields.vue';
import { useSimilar } from './similar.ts';
import SymptomFields from './SymptomFields.vue';

const { t, d } = useI18n();
const packs = usePacks();
const session = useSession();
const intakes = useIntakes();
const shelf = useShelf();
const form = reactive(blankIntake(uuidv7()));
const errors = ref<IntakeErrors>({});
const refusal = ref('');
const saving = ref(false);
const saved = shallowRef<Job>();
const keptHere = ref(false);
const draftFrom = ref('');
const counts = shallowRef<Counts>();
const shop = shallowRef<ShopSettings>(usualShopSettings);
const reached = ref(true);
const ready = ref(false);
const start = ref<HTMLElement>();
const ask = ref<InstanceType<typeof AskNow>>();
const quick = ref<InstanceType<typeof QuickLine>>();

/** Each intake has a draft of its own, and a draft belongs to one tab. */
const draftsBegin = 'intake';
const draftName = (): string => `${draftsBegin}-${form.id}`;
let letGo: (() => void) | undefined;
/** Begun and put aside, in no other tab. */
const aside = shallowRef<Draft[]>([]);

/** False where another tab has it. */
async function take(draft: Draft): Promise<boolean> {
  const held = await holdDraft(draft.name);
  if (!held) return false;
  Object.assign(form, blankIntake(uuidv7()), intakeOfDraft(draft.content, form.id));
  // Drafts are named by their intake; one of an earlier version of this screen moves to its name.
  if (draft.name !== draftName()) {
    await keepDraft(draftName(), form);
    await dropDraft(draft.name);
  }
  letGo = draft.name === draftName() ? held : await holdDraft(draftName());
  draftFrom.value = draft.at;
  return true;
}
async function beginAnew(): Promise<void> {
  Object.assign(form, blankIntake(uuidv7()));
  form.checkFee = (shop.value.checkFeeMinor / 100).toFixed(2).replace(/[.]00$/, '');
  draftFrom.value = '';
  letGo = await holdDraft(draftName());
}
async function lookAside(): Promise<void> {
  const { held } = await navigator.locks.query();
  aside.value = (await draftsOf(draftsBegin)).filter(
    ({ name }) => name !== draftName() && !held?.some((lock) => lock.name === `veglia-draft-${name}`),
  );
}
const nameOfDraft = (draft: Draft): string => {
  const { maker, model, name } = intakeOfDraft(draft.content, '');
  return [maker, model, name].filter((one) => one.trim() !== '').join(' ') || d(draft.at, 'minute');
};

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    counts.value = await packs.countsAt(await packs.newestCounts());
    if (session.people.length === 0) await session.load();
    const settings = await api.shop();
    if (settings.ok) shop.value = settings.value.settings;
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
    return;
  }
  if (ready.value) return;
  for (const draft of await draftsOf(draftsBegin)) {
    if (await take(draft)) break;
  }
  if (!letGo) await beginAnew();
  await lookAside();
  ready.value = true;
  await nextTick();
  sectionStart(0)?.focus();
}
onMounted(load);

const family = computed(() => packs.current?.pack.families.find((one) => one.id === form.family));

const settings = computed(() => jobSettings(shop.value));
const bodies = computed(() => (packs.current ? bodiesOf(form, packs.current, shop.value.currency) : []));
const input = computed<CaseInput>(() =>
  caseOfLedger(
    bodies.value.map((body, index) => ({ id: `draft-${index}`, seq: index + 1, at: '', by: '', basedOn: 0, body })),
    settings.value,
    counts.value,
  ),
);
const preview = computed<CaseFold | undefined>(() =>
  packs.current && form.symptoms.length > 0 ? foldCase(input.value, packs.current, 'cost', 'at-once') : undefined,
);
const hidesMore = computed(() => packs.current !== undefined && mayHideSecond(input.value, packs.current));
const likeness = computed(() => {
  const code = bodies.value.find((body) => body.kind === 'blink.read');
  return {
    symptoms: form.symptoms,
    layout: preview.value?.set.layout,
    family: form.family === '' ? undefined : form.family,
    code: code?.kind === 'blink.read' && code.groups.length > 0 ? code.groups.join('-') : undefined,
  };
});
const similar = useSimilar(likeness);

const bill = useLikelyBill();
/** Typing pauses this long before a bill is asked for or a customer is looked up, milliseconds. */
const pauseMs = 250;
let billTimer: ReturnType<typeof setTimeout> | undefined;
watch([input, () => packs.current], () => {
  clearTimeout(billTimer);
  if (form.symptoms.length === 0) return bill.forget();
  billTimer = setTimeout(() => packs.current && bill.look(input.value, packs.current), pauseMs);
});

let keeping: Promise<void> | undefined;
/** While one draft gives way to another, nothing typed is written: it would be written under the wrong name. */
let quiet = false;
/** Written as it is typed, one write after the other: a reload in the next moment finds it. */
function keep(): void {
  if (!ready.value || quiet || saved.value || keptHere.value) return;
  const name = draftName();
  const blank = isBlank(form);
  const now = JSON.parse(JSON.stringify(form)) as unknown;
  keeping = (keeping ?? Promise.resolve()).then(() => (blank ? dropDraft(name) : keepDraft(name, now)));
}
watch(form, keep, { flush: 'sync' });

function answered(answer: Answer): void {
  form.answers = [...form.answers.filter((one) => one.test !== answer.test || one.of !== answer.of), answer];
}
function takeBack(answer: Answer): void {
  form.answers = form.answers.filter((one) => one !== answer && (one.test !== answer.test || one.of !== answer.of));
}
function takeQuick(taken: readonly QuickBody[], notes: readonly string[]): void {
  form.quick = [...form.quick, ...taken];
  form.notes = [...form.notes, ...notes];
}
/** What came by the quick line, shown with the answers so that it can be undone. */
const quickAnswers = computed<Answer[]>(() =>
  form.quick.flatMap((body) => (body.kind === 'test.answered' ? [{ test: body.test, of: body.of, outcome: body.outcome }] : [])),
);
function takeBackAny(answer: Answer): void {
  takeBack(answer);
  form.quick = form.quick.filter((body) => body.kind !== 'test.answered' || body.test !== answer.test);
}

const errorOf = (field: keyof IntakeErrors): string | undefined => {
  const value = errors.value[field];
  return value === undefined ? undefined : t(`counter.errors.${field}`, { value });
};

async function save(): Promise<void> {
  if (saving.value || saved.value || keptHere.value) return;
  refusal.value = '';
  errors.value = checkIntake(form);
  if (Object.keys(errors.value).length > 0) {
    await nextTick();
    document.querySelector<HTMLElement>('.field.wrong input, .field.wrong textarea')?.focus();
    return;
  }
  const person = session.person;
  if (!person) {
    refusal.value = t('common.notReached');
    return;
  }
  const request = requestOf(form, bodies.value, person.id, new Date().toISOString(), uuidv7);
  const parsed = newJobSchema.safeParse(request);
  if (!parsed.success) {
    refusal.value = parsed.error.issues.map((issue) => issue.message).join(' ');
    return;
  }
  saving.value = true;
  try {
    const { job, refused } = await intakes.takeIn(request);
    if (refused !== undefined) refusal.value = refused;
    else {
      if (job) saved.value = job;
      else keptHere.value = true;
      // Before anything slower: the next Enter opens the bench as soon as the screen says so.
      await nextTick();
      document.querySelector<HTMLElement>('[data-test="to-bench"], [data-test="another"]')?.focus();
      await keeping;
      await dropDraft(draftName());
      // What the shelves show without a server has this one too.
      if (job) void shelf.load();
    }
  } finally {
    saving.value = false;
  }
}

/** The screen as for the next set; what was typed here is gone (checked in, or thrown away on purpose). */
async function another(): Promise<void> {
  await keeping;
  await dropDraft(draftName());
  await next();
}
/** The same, and what was typed waits under "put aside". */
async function putAside(): Promise<void> {
  await keeping;
  await next();
}
async function next(): Promise<void> {
  letGo?.();
  quiet = true;
  await beginAnew();
  quiet = false;
  saved.value = undefined;
  keptHere.value = false;
  errors.value = {};
  await lookAside();
  await nextTick();
  sectionStart(0)?.focus();
}
async function openDraft(draft: Draft): Promise<void> {
  await keeping;
  letGo?.();
  quiet = true;
  if (!(await take(draft))) await beginAnew();
  quiet = false;
  errors.value = {};
  await lookAside();
  await nextTick();
  sectionStart(0)?.focus();
}

const sectionStart = (index: number): HTMLElement | null | undefined =>
  start.value?.querySelectorAll('fieldset')[index]?.querySelector<HTMLElement>('input:not([disabled])');

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey && event.key === 'Enter') {
    event.preventDefault();
    void save();
  }
  if (!event.altKey || event.ctrlKey) return;
  if (event.code === 'KeyA') ask.value?.focus();
  else if (event.code === 'KeyQ') quick.value?.focus();
  else if (/^Digit[1-5]$/.test(event.code)) sectionStart(Number(event.code.slice(5)) - 1)?.focus();
  else return;
  event.preventDefault();
}
onMounted(() => window.addEventListener('keydown', onKey));
onUnmounted(() => {
  window.removeEventListener('keydown', onKey);
  letGo?.();
});
</script>

<template>
  <div class="headline">
    <h1>{{ t('counter.title') }}</h1>
    <p v-if="draftFrom && !saved" class="soft" data-test="draft">
      {{ t('counter.draft', { when: d(draftFrom, 'minute') }) }}
      <button type="button" class="plain" @click="putAside">{{ t('counter.putAside') }}</button>
      <button type="button" class="plain" @click="another">{{ t('counter.throwAway') }}</button>
    </p>
    <p v-if="aside.length > 0 && !saved" class="soft" data-test="aside">
      {{ t('counter.aside') }}
      <button v-for="one in aside" :key="one.name" type="button" class="plain" @click="openDraft(one)">{{ nameOfDraft(one) }}</button>
    </p>
    <p v-if="!reachedServer" class="alarm" role="status">{{ t('counter.away') }}</p>
  </div>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current && ready" class="counter">
    <form ref="start" class="left" novalidate @submit.prevent="save">
      <SymptomFields :form="form" :compiled="packs.current" :error-of="errorOf" :disabled="saved !== undefined" />
      <SetFields :form="form" :compiled="packs.current" :error-of="errorOf" :disabled="saved !== undefined" />
      <CustomerFields :form="form" :error-of="errorOf" :pause-ms="pauseMs" :disabled="saved !== undefined" />
      <AgreedFields :form="form" :compiled="packs.current" :shop="shop" :error-of="errorOf" :disabled="saved !== undefined" />
      <PhotoStrip
        v-if="!saved && !keptHere"
        v-model="form.photos"
        :compiled="packs.current"
        @take="({ field, value }) => (form[field] = value)"
      />
    </form>

    <aside class="right">
      <section v-if="saved" class="sheet saved" role="status">
        <h1 data-test="saved">{{ t('counter.saved', { n: saved.number }) }}</h1>
        <RouterLink class="push full" :to="`/jobs/${saved.id}`" data-test="to-bench">{{ t('counter.toBench') }}</RouterLink>
        <p class="inline">
          <a class="push" :href="`/api/jobs/${saved.id}/label.pdf`" target="_blank">{{ t('bench.label') }}</a>
          <a class="push" :href="`/api/jobs/${saved.id}/receipt.pdf`" target="_blank">{{ t('bench.receipt') }}</a>
          <RouterLink class="push" :to="`/jobs/${saved.id}/call`">{{ t('bench.call') }}</RouterLink>
          <RouterLink class="push" :to="`/jobs/${saved.id}/close`">{{ t('counter.toClose') }}</RouterLink>
        </p>
        <button type="button" class="push" data-test="another" @click="another">{{ t('counter.another') }}</button>
      </section>
      <section v-else-if="keptHere" class="sheet saved" role="status">
        <h1 data-test="kept-here">{{ t('counter.keptHere') }}</h1>
        <p>{{ t('counter.keptHereHelp') }}</p>
        <button type="button" class="push" data-test="another" @click="another">{{ t('counter.another') }}</button>
      </section>
      <section v-else class="sheet">
        <p v-if="refusal" class="alarm" role="alert" data-test="refusal">
          {{ t('counter.notStored') }}: {{ refusal }} {{ t('counter.keptTyped') }}
        </p>
        <button type="button" class="push full save" :disabled="saving" data-test="save" @click="save">
          {{ saving ? t('counter.saving') : t('counter.save') }} <kbd>Ctrl ↵</kbd>
        </button>
        <p v-if="form.warranty === 'running'" class="alarm">{{ t('counter.opensWarranty') }}</p>
        <p v-if="hidesMore" class="alarm">{{ t('counter.hiddenFault') }}</p>
        <QuickLine ref="quick" :input="input" :compiled="packs.current" @take="takeQuick" />
      </section>
      <AskNow
        v-if="preview && !saved && !keptHere"
        ref="ask"
        :fold="preview"
        :compiled="packs.current"
        :answered="[...form.answers, ...quickAnswers]"
        @answer="answered"
        @take-back="takeBackAny"
      />
      <AtOnce
        :fold="preview"
        :compiled="packs.current"
        :bill="bill.answer.value"
        :currency="shop.currency"
        :second-fault="secondFaultProbability(input, packs.current)"
        :hides-second="hidesMore"
        :similar="similar"
        :theories="form.theories"
      />
      <section v-if="family" class="sheet small">
        <h2>{{ t('counter.healthy') }}</h2>
        <p>
          <span class="soft">{{ t('counter.healthyOff') }}</span> {{ textOf(family.healthy.off) }}
        </p>
        <p>
          <span class="soft">{{ t('counter.healthyStarting') }}</span> {{ textOf(family.healthy.starting) }}
        </p>
        <p>
          <span class="soft">{{ t('counter.healthyOn') }}</span> {{ textOf(family.healthy.on) }}
        </p>
        <p>{{ t('counter.healthySeconds', { n: family.healthy.secondsToPicture, m: family.healthy.longestStartSeconds }) }}</p>
      </section>
    </aside>
  </div>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.counter {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(320px, 1fr);
  gap: 16px;
  margin-top: 10px;
  align-items: start;
}
.left,
.right {
  display: grid;
  gap: 12px;
}
.right {
  position: sticky;
  top: 10px;
  max-height: calc(100vh - 20px);
  overflow-y: auto;
}
.save {
  margin-bottom: 8px;
  width: 100%;
  justify-content: center;
  min-height: 50px;
}
.headline {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
}
.saved {
  display: grid;
  gap: 12px;
}
.small {
  font-size: 15px;
}
@media (max-width: 900px) {
  .counter {
    grid-template-columns: minmax(0, 1fr);
  }
  .right {
    position: static;
    max-height: none;
  }
}
</style>
