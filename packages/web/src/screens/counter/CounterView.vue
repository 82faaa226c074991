<script setup lang="ts">
import { jobSettings, newJobSchema, plainAmount, usualShopSettings, type Job, type ShopSettings } from '@veglia/contract';
import {
  caseOfLedger,
  foldCase,
  mayHideSecond,
  secondFaultProbability,
  type Body,
  type CaseFold,
  type CaseInput,
  type Counts,
  type QuickBody,
} from '@veglia/core';
import { useDebounceFn, watchDebounced } from '@vueuse/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, nextTick, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached, reachedServer } from '../../api.ts';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import QuickLine from '../../parts/QuickLine.vue';
import { useLikelyBill } from '../../stores/deeper.ts';
import type { Draft } from '../../stores/drafts.ts';
import { useIntakes } from '../../stores/intakes.ts';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import { useShelf } from '../../stores/shelf.ts';
import AgreedFields from './AgreedFields.vue';
import AskNow from './AskNow.vue';
import AtOnce from './AtOnce.vue';
import CheckedIn from './CheckedIn.vue';
import CustomerFields from './CustomerFields.vue';
import { useIntakeDraft } from './draft.ts';
import {
  bodiesOf,
  checkIntake,
  intakeOfDraft,
  numberBounds,
  requestOf,
  textBounds,
  type Answer,
  type IntakeErrors,
  type IntakeForm,
} from './intake.ts';
import PhotoStrip from './PhotoStrip.vue';
import SetFields from './SetFields.vue';
import { useSimilar } from './similar.ts';
import SymptomFields from './SymptomFields.vue';

const { t, d } = useI18n();
const packs = usePacks();
const session = useSession();
const intakes = useIntakes();
const shelf = useShelf();
const errors = ref<IntakeErrors>({});
const refusal = ref('');
const saving = ref(false);
const saved = shallowRef<Job>();
const keptHere = ref(false);
const counts = shallowRef<Counts>();
const shop = shallowRef<ShopSettings>(usualShopSettings);
const reached = ref(true);
const start = ref<HTMLElement>();
const ask = ref<InstanceType<typeof AskNow>>();
const quick = ref<InstanceType<typeof QuickLine>>();

const done = computed(() => saved.value !== undefined || keptHere.value);
const draft = useIntakeDraft(
  (blank) => (blank.checkFee = plainAmount(shop.value.checkFeeMinor, shop.value.currency)),
  () => done.value,
);
const { form, aside, ready, from: draftFrom } = draft;
const whatIs = ({ maker, model, name }: IntakeForm): string =>
  [`${maker} ${model}`, name]
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .join(', ');
const nameOfDraft = ({ content, at }: Draft): string => whatIs(intakeOfDraft(content, '')) || d(at, 'minute');

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    counts.value = await packs.countsAt(await packs.newestCounts());
    const settings = await api.shop();
    if (settings.ok) shop.value = settings.value.settings;
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
    return;
  }
  if (ready.value) return;
  await draft.begin();
  await nextTick();
  sectionStart(0)?.focus();
}
onMounted(load);

const family = computed(() => packs.current?.pack.families.find((one) => one.id === form.family));

const settings = computed(() => jobSettings(shop.value));
/** Typing rests this long before the judge is asked; and before a bill or a customer is looked for, which takes longer. Milliseconds. */
const restMs = 100;
const pauseMs = 250;
/** The same list while what is typed says nothing new of the set: a name or a shelf is no reason to work everything out again. */
const bodies = computed<Body[]>((before) => {
  const now = packs.current ? bodiesOf(form, packs.current, shop.value.currency) : [];
  return before && JSON.stringify(before) === JSON.stringify(now) ? before : now;
});
/** What the judge is asked with: once typing rests, because it takes longer than a key. */
const resting = shallowRef(bodies.value);
watchDebounced(bodies, (now) => (resting.value = now), { debounce: restMs });
const input = computed<CaseInput>(() =>
  caseOfLedger(
    resting.value.map((body, index) => ({ id: `draft-${index}`, seq: index + 1, at: '', by: '', basedOn: 0, body })),
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
const lookAtBill = useDebounceFn(() => {
  if (packs.current && form.symptoms.length > 0) bill.look(input.value, packs.current);
}, pauseMs);
watch([input, () => packs.current], () => {
  if (form.symptoms.length === 0) bill.forget();
  else void lookAtBill();
});

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
  if (value === undefined) return undefined;
  // Told by the field itself, while it is typed.
  if (field in textBounds && value !== '') return undefined;
  return t(`counter.errors.${field}`, { value, ...(field in numberBounds ? numberBounds[field as keyof typeof numberBounds] : {}) });
};

async function save(): Promise<void> {
  if (saving.value || done.value) return;
  refusal.value = '';
  errors.value = checkIntake(form, shop.value.currency);
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
      await draft.forget();
      // What the shelves show without a server has this one too.
      if (job) void shelf.load();
    }
  } finally {
    saving.value = false;
  }
}

/** The screen as for the next set; what was typed here is gone (checked in, or thrown away on purpose). */
async function another(): Promise<void> {
  await draft.forget();
  await putAside();
}
/** The same, and what was typed waits under "put aside". */
async function putAside(): Promise<void> {
  await draft.putAside();
  saved.value = undefined;
  keptHere.value = false;
  startOver();
}
async function openDraft(one: Draft): Promise<void> {
  await draft.open(one);
  startOver();
}
function startOver(): void {
  errors.value = {};
  void nextTick(() => sectionStart(0)?.focus());
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
  draft.end();
});
</script>

<template>
  <div class="headline">
    <h1>{{ t('counter.title') }}</h1>
    <p v-if="draftFrom && !done" class="soft" data-test="draft">
      {{ t('counter.draft', { when: d(draftFrom, 'minute') }) }}
      <button type="button" class="plain" @click="putAside">{{ t('counter.putAside') }}</button>
      <button type="button" class="plain" @click="another">{{ t('counter.throwAway') }}</button>
    </p>
    <p v-if="aside.length > 0 && !done" class="soft" data-test="aside">
      {{ t('counter.aside') }}
      <button v-for="one in aside" :key="one.name" type="button" class="plain" @click="openDraft(one)">{{ nameOfDraft(one) }}</button>
    </p>
    <p v-if="!reachedServer" class="alarm" role="status">{{ t('counter.away') }}</p>
  </div>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current && ready" class="counter">
    <CheckedIn v-if="done" :job="saved" :what="whatIs(form)" @another="another" />
    <form v-else ref="start" class="left" novalidate @submit.prevent="save">
      <SymptomFields :form="form" :compiled="packs.current" :error-of="errorOf" />
      <SetFields :form="form" :compiled="packs.current" :error-of="errorOf" />
      <CustomerFields :form="form" :error-of="errorOf" :pause-ms="pauseMs" />
      <AgreedFields :form="form" :compiled="packs.current" :shop="shop" :error-of="errorOf" />
      <PhotoStrip v-model="form.photos" :compiled="packs.current" @take="({ field, value }) => (form[field] = value)" />
    </form>

    <aside class="right">
      <section v-if="!done" class="sheet">
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
        v-if="preview && !done"
        ref="ask"
        :fold="preview"
        :compiled="packs.current"
        :answered="[...form.answers, ...quickAnswers]"
        @answer="answered"
        @take-back="takeBackAny"
      />
      <AtOnce
        :aria-busy="resting !== bodies"
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
