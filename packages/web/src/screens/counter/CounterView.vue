<script setup lang="ts">
import {
  jobSettings,
  newJobSchema,
  usualShopSettings,
  type Job,
  type JobCard,
  type KnownCustomer,
  type ShopSettings,
} from '@veglia/contract';
import {
  accessories,
  caseOfLedger,
  conditions,
  earlierHands,
  earlierWork,
  foldCase,
  mayHideSecond,
  secondFaultOdds,
  similarJobs,
  theorySources,
  type CaseFold,
  type CaseInput,
  type Counts,
  type QuickBody,
} from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, nextTick, onMounted, onUnmounted, reactive, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached, reachedServer } from '../../api.ts';
import FormField from '../../parts/FormField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import QuickLine from '../../parts/QuickLine.vue';
import { useLikelyBill } from '../../stores/deeper.ts';
import { dropDraft, keepDraft, readDraft } from '../../stores/drafts.ts';
import { useIntakes } from '../../stores/intakes.ts';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import AskNow from './AskNow.vue';
import AtOnce, { type PastCard } from './AtOnce.vue';
import { blankIntake, bodiesOf, checkIntake, intakeOfDraft, isBlank, requestOf, type Answer, type IntakeErrors } from './intake.ts';
import LooksFields from './LooksFields.vue';
import PhotoStrip from './PhotoStrip.vue';
import { symptomSearch } from './symptomSearch.ts';

const { t, d } = useI18n();
const packs = usePacks();
const session = useSession();
const intakes = useIntakes();
const form = reactive(blankIntake(uuidv7()));
const errors = ref<IntakeErrors>({});
const refusal = ref('');
const saving = ref(false);
const saved = shallowRef<Job>();
const keptHere = ref(false);
const draftFrom = ref('');
const counts = shallowRef<Counts>();
const shop = shallowRef<ShopSettings>(usualShopSettings);
const past = shallowRef<JobCard[]>([]);
const known = shallowRef<KnownCustomer[]>([]);
const reached = ref(true);
const ready = ref(false);
const start = ref<HTMLElement>();
const ask = ref<InstanceType<typeof AskNow>>();
const quick = ref<InstanceType<typeof QuickLine>>();
const draftName = 'intake';

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    counts.value = await packs.countsAt(await packs.newestCounts());
    if (session.people.length === 0) await session.load();
    const settings = await api.shop();
    if (settings.ok) shop.value = settings.value.settings;
    const jobs = await api.jobs();
    if (jobs.ok) past.value = [...jobs.value].reverse();
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
    return;
  }
  if (ready.value) return;
  const draft = await readDraft(draftName);
  if (draft) {
    Object.assign(form, intakeOfDraft(draft.content, form.id));
    draftFrom.value = draft.at;
  } else form.checkFee = (shop.value.checkFeeMinor / 100).toFixed(2).replace(/[.]00$/, '');
  ready.value = true;
  await nextTick();
  sectionStart(0)?.focus();
}
onMounted(load);

const search = computed(() => (packs.current ? symptomSearch(packs.current.pack.symptoms) : undefined));
const typedSymptom = ref('');
const symptoms = computed(() => {
  const all = packs.current?.pack.symptoms ?? [];
  return (search.value?.find(typedSymptom.value) ?? []).flatMap((id) => all.find((one) => one.id === id) ?? []);
});
const families = computed(() => packs.current?.pack.families ?? []);
const makers = computed(() => [...new Set(families.value.map(({ maker }) => maker))].sort());
const family = computed(() => families.value.find((one) => one.id === form.family));
/** Makers are told by their families; typing one chooses nothing by itself. */
function familyChosen(): void {
  if (family.value && form.maker.trim() === '') form.maker = family.value.maker;
  const only = family.value?.layouts.length === 1 ? family.value.layouts[0] : undefined;
  if (only !== undefined) form.layout = only;
}

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
  packs.current && form.symptoms.length > 0 ? foldCase(input.value, packs.current) : undefined,
);
const hidesMore = computed(() => mayHideSecond(input.value));
const similar = computed(() => {
  const cards = past.value.flatMap((card): PastCard[] => {
    if (card.state !== 'closed') return [];
    const { family: itsFamily, layout, code, ...rest } = card;
    return [{ ...rest, ...(itsFamily ? { family: itsFamily } : {}), ...(layout ? { layout } : {}), ...(code ? { code } : {}) }];
  });
  const code = bodies.value.find((body) => body.kind === 'blink.read');
  const now = {
    symptoms: form.symptoms,
    layout: preview.value?.set.layout,
    family: form.family === '' ? undefined : form.family,
    code: code?.kind === 'blink.read' ? code.groups.join('-') : undefined,
  };
  return similarJobs(now, cards, 4);
});

const bill = useLikelyBill();
/** Typing pauses this long before a bill is asked for or a customer is looked up, milliseconds. */
const pause = 250;
let billTimer: ReturnType<typeof setTimeout> | undefined;
watch([input, () => packs.current], () => {
  clearTimeout(billTimer);
  if (form.symptoms.length === 0) return bill.forget();
  billTimer = setTimeout(() => packs.current && bill.look(input.value, packs.current), pause);
});

let keeping: Promise<void> | undefined;
/** Written as it is typed, one write after the other: a reload in the next moment finds it. */
function keep(): void {
  if (!ready.value || saved.value || keptHere.value) return;
  const blank = isBlank(form);
  const now = JSON.parse(JSON.stringify(form)) as unknown;
  keeping = (keeping ?? Promise.resolve()).then(() => (blank ? dropDraft(draftName) : keepDraft(draftName, now)));
}
watch(form, keep, { flush: 'sync' });

let customerTimer: ReturnType<typeof setTimeout> | undefined;
watch([() => form.name, () => form.contact, () => form.customerId, () => form.ownSet], () => {
  clearTimeout(customerTimer);
  known.value = [];
  if (form.ownSet || form.customerId !== '') return;
  customerTimer = setTimeout(() => void lookUp(form.name, form.contact), pause);
});
async function lookUp(name: string, contact: string): Promise<void> {
  try {
    const reply = await api.searchCustomers(name.trim(), contact.trim());
    // Typed on in the meantime: the next answer is on its way.
    if (reply.ok && name === form.name && contact === form.contact && form.customerId === '') known.value = reply.value;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
}
function takeKnown(customer: KnownCustomer): void {
  Object.assign(form, { customerId: customer.id, name: customer.name, contact: customer.contact });
}

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
/** What came by the quick line, shown with the answers so that it can be taken back. */
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
      await keeping;
      await dropDraft(draftName);
      // What the shelves show without a server has this one too.
      if (job) void api.jobs().catch(() => undefined);
      await nextTick();
      document.querySelector<HTMLElement>('[data-test="to-bench"], [data-test="another"]')?.focus();
    }
  } finally {
    saving.value = false;
  }
}

async function another(): Promise<void> {
  Object.assign(form, blankIntake(uuidv7()));
  form.checkFee = (shop.value.checkFeeMinor / 100).toFixed(2).replace(/[.]00$/, '');
  saved.value = undefined;
  keptHere.value = false;
  draftFrom.value = '';
  errors.value = {};
  await dropDraft(draftName);
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
onUnmounted(() => window.removeEventListener('keydown', onKey));
const addTheory = (): void => void (form.theories = [...form.theories, { text: '', source: 'customer', assembly: '' }]);
</script>

<template>
  <div class="headline">
    <h1>{{ t('counter.title') }}</h1>
    <p v-if="draftFrom && !saved" class="soft" data-test="draft">
      {{ t('counter.draft', { when: d(draftFrom, 'minute') }) }}
      <button type="button" class="plain" @click="another">{{ t('counter.startAnew') }}</button>
    </p>
    <p v-if="!reachedServer" class="alarm" role="status">{{ t('counter.away') }}</p>
  </div>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current && ready" class="counter">
    <form ref="start" class="left" novalidate @submit.prevent="save">
      <fieldset :disabled="saved !== undefined" class="sheet">
        <legend>{{ t('counter.wrong') }} <kbd>Alt 1</kbd></legend>
        <FormField id="symptoms" class="wide" :label="t('counter.symptoms')" :error="errorOf('symptoms')">
          <el-select
            id="symptoms"
            v-model="form.symptoms"
            multiple
            filterable
            default-first-option
            :filter-method="(typed: string) => (typedSymptom = typed)"
            :placeholder="t('counter.symptomsHint')"
            data-test="symptoms"
            @visible-change="(open: boolean) => open || (typedSymptom = '')"
          >
            <el-option v-for="symptom in symptoms" :key="symptom.id" :value="symptom.id" :label="textOf(symptom.name)">
              {{ textOf(symptom.name) }} <span class="soft">({{ textOf(symptom.said) }})</span>
            </el-option>
          </el-select>
        </FormField>
        <FormField id="words" class="wide" :label="t('counter.words')">
          <el-input id="words" v-model="form.words" type="textarea" :rows="2" />
        </FormField>
        <FormField id="often" class="short" :label="t('counter.often')">
          <el-select
            id="often"
            v-model="form.often"
            :empty-values="[null, undefined, '']"
            :placeholder="t('counter.notSaid')"
            clearable
            :value-on-clear="''"
          >
            <el-option v-for="one in ['always', 'sometimes'] as const" :key="one" :value="one" :label="t(`often.${one}`)" />
          </el-select>
        </FormField>
        <FormField id="temperature" class="short" :label="t('counter.temperature')">
          <el-select
            id="temperature"
            v-model="form.temperature"
            :empty-values="[null, undefined, '']"
            :placeholder="t('counter.notSaid')"
            clearable
            :value-on-clear="''"
          >
            <el-option v-for="one in ['cold', 'warm', 'any'] as const" :key="one" :value="one" :label="t(`temperature.${one}`)" />
          </el-select>
        </FormField>
        <FormField id="since" class="short" :label="t('counter.since')"><el-input id="since" v-model="form.since" /></FormField>
        <FormField id="after" class="short" :label="t('counter.after')"><el-input id="after" v-model="form.after" /></FormField>
        <FormField id="blink" :label="t('counter.blink')" :error="errorOf('blink')">
          <el-input id="blink" v-model="form.blink" :placeholder="t('counter.blinkHint')" />
        </FormField>
        <div class="field bottom">
          <el-checkbox v-model="form.blinkTwice" :disabled="form.blink.trim() === ''">{{ t('counter.blinkTwice') }}</el-checkbox>
        </div>
      </fieldset>
      <fieldset :disabled="saved !== undefined" class="sheet">
        <legend>{{ t('counter.set') }} <kbd>Alt 2</kbd></legend>
        <FormField id="maker" :label="t('counter.maker')" :error="errorOf('maker')">
          <el-input id="maker" v-model="form.maker" list="makers" :placeholder="t('counter.makerHint')" />
          <datalist id="makers"><option v-for="one in makers" :key="one" :value="one" /></datalist>
        </FormField>
        <FormField id="family" :label="t('counter.family')">
          <el-select
            id="family"
            v-model="form.family"
            filterable
            default-first-option
            clearable
            :empty-values="[null, undefined, '']"
            :value-on-clear="''"
            :placeholder="t('counter.familyHint')"
            @change="familyChosen"
          >
            <el-option v-for="one in families" :key="one.id" :value="one.id" :label="textOf(one.name)" />
          </el-select>
        </FormField>
        <FormField id="model" class="short" :label="t('counter.model')"><el-input id="model" v-model="form.model" /></FormField>
        <FormField id="version" class="short" :label="t('counter.version')"><el-input id="version" v-model="form.version" /></FormField>
        <FormField id="serial" :label="t('counter.serial')"><el-input id="serial" v-model="form.serial" /></FormField>
        <FormField id="size" class="short" :label="t('counter.size')" :error="errorOf('size')">
          <el-input id="size" v-model="form.size" inputmode="numeric" />
        </FormField>
        <FormField id="age" class="short" :label="t('counter.age')" :error="errorOf('age')">
          <el-input id="age" v-model="form.age" inputmode="decimal" />
        </FormField>
        <FormField id="layout" :label="t('counter.layout')">
          <el-select id="layout" v-model="form.layout">
            <el-option value="not-sure" :label="t('counter.notSure')" />
            <el-option v-for="layout in packs.current.pack.layouts" :key="layout.id" :value="layout.id" :label="textOf(layout.name)" />
          </el-select>
        </FormField>
        <LooksFields v-if="form.layout === 'not-sure'" v-model="form.looks" :compiled="packs.current" :possible="family?.layouts" />
        <div class="field wide" role="group" :aria-label="t('counter.condition')">
          <span class="grouplabel">{{ t('counter.condition') }}</span>
          <el-checkbox-group v-model="form.condition">
            <el-checkbox v-for="one in conditions" :key="one" :value="one">{{ t(`core.condition.${one}`) }}</el-checkbox>
          </el-checkbox-group>
        </div>
        <FormField id="earlier" :label="t('counter.earlier')"><el-input id="earlier" v-model="form.earlier" /></FormField>
        <FormField id="earlierBy" :label="t('counter.earlierBy')">
          <el-select
            id="earlierBy"
            v-model="form.earlierBy"
            :empty-values="[null, undefined, '']"
            :placeholder="t('counter.notSaid')"
            clearable
            :value-on-clear="''"
          >
            <el-option v-for="one in earlierHands" :key="one" :value="one" :label="t(`earlierBy.${one}`)" />
          </el-select>
        </FormField>
        <div class="field wide" role="group" :aria-label="t('counter.earlierDid')">
          <span class="grouplabel">{{ t('counter.earlierDid') }}</span>
          <el-checkbox-group v-model="form.earlierDid">
            <el-checkbox v-for="one in earlierWork" :key="one" :value="one">{{ t(`earlierDid.${one}`) }}</el-checkbox>
          </el-checkbox-group>
        </div>
      </fieldset>
      <fieldset :disabled="saved !== undefined" class="sheet">
        <legend>{{ t('counter.customer') }} <kbd>Alt 3</kbd></legend>
        <div class="field wide">
          <el-checkbox v-model="form.ownSet">{{ t('counter.ownSet') }}</el-checkbox>
        </div>
        <FormField id="name" :label="t('counter.name')" :error="errorOf('name')">
          <el-input id="name" v-model="form.name" autocomplete="off" :disabled="form.ownSet || form.customerId !== ''" />
        </FormField>
        <FormField id="contact" :label="t('counter.contact')">
          <el-input id="contact" v-model="form.contact" autocomplete="off" :disabled="form.ownSet || form.customerId !== ''" />
        </FormField>
        <p v-if="form.customerId !== ''" class="field wide known" data-test="known-customer">
          {{ t('counter.known.taken') }}
          <button type="button" class="plain" @click="form.customerId = ''">{{ t('counter.known.other') }}</button>
        </p>
        <div v-else-if="known.length > 0" class="field wide known" data-test="known">
          <span class="grouplabel" role="status">{{ t('counter.known.title') }}</span>
          <button v-for="one in known" :key="one.id" type="button" class="push" @click="takeKnown(one)">
            {{ one.name }} <span class="soft">{{ one.contact }}, {{ t('counter.known.jobs', one.jobs) }}</span>
          </button>
        </div>
      </fieldset>
      <fieldset :disabled="saved !== undefined" class="sheet">
        <legend>{{ t('counter.agreed') }} <kbd>Alt 4</kbd></legend>
        <FormField id="limit" class="short" :label="t('counter.limit', { currency: shop.currency })" :error="errorOf('limit')">
          <el-input id="limit" v-model="form.limit" inputmode="decimal" />
        </FormField>
        <FormField id="limitMinutes" class="short" :label="t('counter.limitMinutes')" :error="errorOf('limitMinutes')">
          <el-input id="limitMinutes" v-model="form.limitMinutes" inputmode="numeric" />
        </FormField>
        <FormField id="checkFee" class="short" :label="t('counter.checkFee', { currency: shop.currency })" :error="errorOf('checkFee')">
          <el-input id="checkFee" v-model="form.checkFee" inputmode="decimal" />
        </FormField>
        <FormField id="warranty" class="short" :label="t('counter.warranty')">
          <el-select id="warranty" v-model="form.warranty">
            <el-option v-for="one in ['unknown', 'running', 'over'] as const" :key="one" :value="one" :label="t(`warranty.${one}`)" />
          </el-select>
        </FormField>
        <FormField id="mayLoseData" :label="t('counter.mayLoseData')">
          <el-select id="mayLoseData" v-model="form.mayLoseData" :empty-values="[null, undefined, '']" :placeholder="t('counter.notAsked')">
            <el-option v-for="one in ['yes', 'no'] as const" :key="one" :value="one" :label="t(`mayLoseData.${one}`)" />
          </el-select>
        </FormField>
        <FormField id="needs" :label="t('counter.needs')"><el-input id="needs" v-model="form.needs" /></FormField>
        <FormField id="canDoWithout" :label="t('counter.canDoWithout')"
          ><el-input id="canDoWithout" v-model="form.canDoWithout"
        /></FormField>
        <FormField id="shelf" class="short" :label="t('counter.shelf')">
          <el-input id="shelf" v-model="form.shelf" list="shelves" />
          <datalist id="shelves"><option v-for="one in shop.shelves" :key="one" :value="one" /></datalist>
        </FormField>
        <FormField id="otherAccessories" :label="t('counter.otherAccessories')">
          <el-input id="otherAccessories" v-model="form.otherAccessories" />
        </FormField>
        <div class="field wide" role="group" :aria-label="t('counter.accessories')">
          <span class="grouplabel">{{ t('counter.accessories') }}</span>
          <el-checkbox-group v-model="form.accessories">
            <el-checkbox v-for="one in accessories" :key="one" :value="one">{{ t(`core.accessory.${one}`) }}</el-checkbox>
          </el-checkbox-group>
        </div>
        <template v-for="(theory, index) in form.theories" :key="index">
          <FormField :id="`theory-${index}`" :label="t('counter.theory')"
            ><el-input :id="`theory-${index}`" v-model="theory.text"
          /></FormField>
          <FormField :id="`source-${index}`" class="short" :label="t('counter.theorySource')">
            <el-select :id="`source-${index}`" v-model="theory.source">
              <el-option v-for="one in theorySources" :key="one" :value="one" :label="t(`theorySource.${one}`)" />
            </el-select>
          </FormField>
          <FormField :id="`blames-${index}`" class="short" :label="t('counter.theoryBlames')">
            <el-select
              :id="`blames-${index}`"
              v-model="theory.assembly"
              filterable
              clearable
              :empty-values="[null, undefined, '']"
              :value-on-clear="''"
              :placeholder="t('counter.notSaid')"
            >
              <el-option
                v-for="one in packs.current.pack.assemblies.filter(({ kind }) => kind === 'assembly')"
                :key="one.id"
                :value="one.id"
                :label="textOf(one.name)"
              />
            </el-select>
          </FormField>
        </template>
        <div class="field wide">
          <button type="button" class="plain" @click="addTheory">{{ t('counter.addTheory') }}</button>
        </div>
      </fieldset>
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
        <p class="known">
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
        :second-fault="secondFaultOdds(input)"
        :hides-second="hidesMore"
        :similar="similar"
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
fieldset {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px 14px;
  min-width: 0;
  padding-top: 6px;
}
legend {
  font-weight: 700;
  padding: 0 6px;
}
.field {
  grid-column: span 2;
}
.field.wide {
  grid-column: 1 / -1;
}
.field.short {
  grid-column: span 1;
}
.field.bottom {
  align-self: end;
}
.grouplabel {
  display: block;
  font-size: 15px;
  color: var(--ink-soft);
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
.known {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.known .grouplabel {
  flex: 1 0 100%;
}
.saved {
  display: grid;
  gap: 12px;
}
.small {
  font-size: 15px;
}
legend kbd {
  font-weight: 400;
}
kbd {
  font-size: 13px;
  opacity: 0.85;
}
@media (max-width: 900px) {
  .counter {
    grid-template-columns: minmax(0, 1fr);
  }
  .right {
    position: static;
    max-height: none;
  }
  fieldset {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>
