<script setup lang="ts">
import { boundsOf, parseAmount, taxRuleOf } from '@veglia/contract';
import {
  bodySchemas,
  checksMissing,
  confirmedHows,
  flashResults,
  leftBeforeClosing,
  liveEntries,
  lossAgreed,
  memories,
  notInBook,
  outcomesOfAJob,
  partSources,
  proofBeforeClosing,
  proofName,
  usedAgain,
  type Body,
  type BodyOf,
  type ClosingCheck,
} from '@veglia/core';
import { useSessionStorage } from '@vueuse/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRouter } from 'vue-router';
import { percent, useNames } from '../../names.ts';
import { parseBetween } from '../../numbers.ts';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';
import JobGate from '../../parts/JobGate.vue';
import { useJob } from '../../stores/job.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';
import { textOf } from '../../stores/packs.ts';
import { useActWords } from '../bench/actWords.ts';
import ModificationForm from './ModificationForm.vue';
import RefusedEntries from '../bench/RefusedEntries.vue';
import { useEntryWords } from '../bench/entryWords.ts';

const props = defineProps<{ id: string }>();
const { t } = useI18n();
const store = useJob();
const shop = useShopSettings();
const router = useRouter();
const names = useNames(() => store.compiled);
const words = useEntryWords(() => store.compiled);
const { left: leftName } = useActWords(names);

interface PartForm {
  assembly: string;
  number: string;
  source: (typeof partSources)[number];
  price: string;
}
interface FlashForm {
  memory: '' | (typeof memories)[number];
  image: string;
  result: (typeof flashResults)[number];
}
interface EndForm {
  outcome: '' | (typeof outcomesOfAJob)[number];
  fault: string;
  how: '' | (typeof confirmedHows)[number];
  minutes: string;
  /** Something else than what the ledger says. */
  minutesTyped: boolean;
  remains: string;
  /** Null: as the shop has it. */
  warranty: string | null;
  /** What stays as it is now, on purpose. */
  modified: string[];
  checked: Partial<Record<ClosingCheck, 'passed' | 'not-required' | ''>>;
}
const part = reactive<PartForm>({ assembly: '', number: '', source: 'new', price: '' });
const flash = reactive<FlashForm>({ memory: '', image: '', result: 'starts' });
/** Kept while somebody goes to the proof and comes back. */
const kept = useSessionStorage<EndForm>(
  `veglia.close.${props.id}`,
  { outcome: '', fault: '', how: '', minutes: '', minutesTyped: false, remains: '', warranty: null, modified: [], checked: {} },
  { mergeDefaults: true },
);
const end = kept.value;
const errors = reactive<Record<string, string>>({});

const currency = computed(() => store.job?.settings.currency ?? 'EUR');
const assemblies = computed(() => (store.fold?.assemblies ?? []).filter((one) => one.id !== notInBook && one.id !== 'outside'));
const faults = computed(() => (store.fold?.faults ?? []).filter((one) => one.id !== notInBook));
const recorded = computed(() =>
  store.entries
    .filter(
      ({ body }) =>
        body.kind === 'part.fitted' ||
        body.kind === 'flash.done' ||
        body.kind === 'modification.recorded' ||
        (body.kind === 'flash.step' && body.did.step === 'started'),
    )
    .map((entry) => words(entry, store.entries)),
);

const isModified = computed(() => liveEntries(store.entries).some(({ body }) => body.kind === 'modification.recorded'));

/** Fields that follow from the ledger, once it is there. */
function prefill(): void {
  if (!end.minutesTyped) end.minutes = String(Math.round(store.fold?.spent.minutes ?? 0));
  const top = store.fold?.assemblies[0];
  if (part.assembly === '' && top && top.id !== notInBook && top.id !== 'outside' && top.probability >= 0.5) part.assembly = top.id;
}

function collect(found: Record<string, string | undefined>): boolean {
  for (const key of Object.keys(errors)) delete errors[key];
  for (const [key, value] of Object.entries(found)) if (value !== undefined) errors[key] = value;
  return Object.keys(errors).length === 0;
}

const partNumber = boundsOf(bodySchemas['part.fitted'].shape.number);
const imageName = boundsOf(bodySchemas['flash.done'].shape.image);
async function recordPart(): Promise<void> {
  const amount = parseAmount(part.price, currency.value);
  const fine = collect({
    assembly: part.assembly === '' ? t('close.errors.assembly') : undefined,
    number: part.number.trim() === '' ? t('close.errors.number') : undefined,
    price: amount === undefined ? t('close.errors.price', { value: part.price }) : undefined,
  });
  if (!fine || amount === undefined) return;
  await store.write({
    kind: 'part.fitted',
    v: 1,
    assembly: part.assembly,
    number: part.number.trim(),
    source: part.source,
    price: { amountMinor: amount, currency: currency.value },
  });
  Object.assign(part, { number: '', price: '' });
}

async function recordFlash(): Promise<void> {
  const { memory } = flash;
  const fine = collect({
    memory: memory === '' ? t('close.errors.memory') : undefined,
    image: flash.image.trim() === '' ? t('close.errors.image') : undefined,
  });
  if (!fine || memory === '') return;
  await store.write({ kind: 'flash.done', v: 1, memory, image: flash.image.trim(), result: flash.result });
  flash.image = '';
}

/** Plugs out, bridges and tape, where the set is to be used again. */
const leftNow = computed(() => {
  const { outcome } = end;
  return outcome === '' || !store.fold ? [] : leftBeforeClosing({ outcome }, store.fold.set);
});
/** What has to be looked at before it is used again. */
const checksNow = computed(() => {
  const { outcome } = end;
  return outcome === '' || !store.fold || !store.compiled
    ? []
    : checksMissing({ outcome }, liveEntries(store.entries), store.fold.set, store.compiled);
});
/** What has not been seen yet of a set that is to be used again. */
const unproven = computed(() => {
  const { outcome } = end;
  if (outcome === '' || !store.fold || !store.compiled) return [];
  const { compiled } = store;
  const answered = Object.fromEntries(checksNow.value.map((check) => [check, 'passed' as const]));
  return proofBeforeClosing({ outcome, checked: answered }, liveEntries(store.entries), store.fold.set, compiled).map((id) =>
    textOf(proofName(id, compiled)),
  );
});
const checkAnswers = (check: ClosingCheck): ('passed' | 'not-required')[] =>
  check === 'ground-screws' ? ['passed'] : ['passed', 'not-required'];
function checked(): Pick<BodyOf<'job.closed'>, 'checked'> {
  const told = checksNow.value.flatMap((check) => {
    const result = end.checked[check];
    return result === undefined || result === '' ? [] : [[check, result] as const];
  });
  return told.length === 0 ? {} : { checked: Object.fromEntries(told) };
}
const closed = bodySchemas['job.closed'].shape;
const spentMinutes = boundsOf(closed.minutes);
const remains = boundsOf(closed.remains);
const warrantyBounds = boundsOf(closed.warrantyDays);
/** What leaves unrepaired has none. */
const warrantyDays = computed({
  get: () => end.warranty ?? String(shop.value.warrantyDays),
  set: (typed) => (end.warranty = typed),
});
const givesWarranty = computed(() => end.outcome !== '' && usedAgain.includes(end.outcome));
/** What is lost for good is agreed in writing. */
const unwritten = computed(() => end.outcome !== '' && !lossAgreed(end.outcome, liveEntries(store.entries)));
const closing = ref(false);
async function closeJob(): Promise<void> {
  const { outcome } = end;
  const minutes = parseBetween(end.minutes, spentMinutes);
  const warranty = givesWarranty.value ? parseBetween(warrantyDays.value, warrantyBounds, true) : undefined;
  const fine = collect({
    warranty:
      givesWarranty.value && warranty === undefined
        ? t('close.errors.warranty', { value: warrantyDays.value, ...warrantyBounds })
        : undefined,
    outcome: outcome === '' ? t('close.errors.outcome') : undefined,
    minutes: minutes === undefined ? t('close.errors.minutes', { value: end.minutes, ...spentMinutes }) : undefined,
    how: end.fault !== '' && end.how === '' ? t('close.errors.how') : undefined,
    checked: checksNow.value.every((check) => end.checked[check]) ? undefined : t('close.errors.checked'),
    proof: unproven.value.length > 0 ? t('close.errors.proof') : undefined,
    modified: leftNow.value.every((one) => end.modified.includes(one)) ? undefined : t('close.errors.modified'),
  });
  if (!fine || outcome === '' || minutes === undefined) return;
  const assembly = faults.value.find((one) => one.id === end.fault)?.assembly;
  const bodies: Body[] = [];
  if (assembly !== undefined)
    bodies.push({ kind: 'fault.confirmed', v: 1, assembly, fault: end.fault, ...(end.how === '' ? {} : { how: end.how }) });
  bodies.push({
    kind: 'job.closed',
    v: 2,
    outcome,
    minutes,
    ...(end.remains.trim() === '' ? {} : { remains: end.remains.trim() }),
    ...(warranty === undefined ? {} : { warrantyDays: warranty }),
    rateMinorPerHour: store.job?.settings.rateMinorPerHour ?? shop.value.rateMinorPerHour,
    tax: taxRuleOf(shop.value),
    ...checked(),
    ...(leftNow.value.length === 0 ? {} : { modified: [...leftNow.value] }),
  });
  closing.value = true;
  await store.write(...bodies);
  closing.value = false;
  if (store.fold?.closed && store.refused.length === 0) {
    kept.value = undefined;
    await router.push(`/jobs/${props.id}`);
  }
}
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold }" @opened="prefill">
    <div class="head">
      <h1>
        {{ t('close.title', { n: job.number }) }} <span class="soft">{{ job.plate.maker }} {{ job.plate.model }}</span>
      </h1>
      <RouterLink :to="`/jobs/${id}`">{{ t('counter.toBench') }}</RouterLink>
    </div>
    <p v-if="fold.closed" class="sheet" role="status">{{ t('close.done', { n: job.number }) }}</p>
    <p v-if="!store.reached" class="sheet alarm" role="alert">
      {{ t('common.notReached') }}. {{ t('bench.waiting', { n: store.waiting.length }) }}.
    </p>
    <RefusedEntries :compiled="store.compiled" />
    <div class="grid">
      <div class="stack">
        <form class="sheet fields" novalidate @submit.prevent="recordPart">
          <h2 class="wide">{{ t('close.part') }}</h2>
          <FormField id="part-assembly" :label="t('close.assembly')" :error="errors.assembly">
            <el-select
              id="part-assembly"
              v-model="part.assembly"
              filterable
              default-first-option
              data-test="part-assembly"
              :placeholder="t('close.assembly')"
            >
              <el-option v-for="one in assemblies" :key="one.id" :value="one.id" :label="names.assembly(one.id)" />
            </el-select>
          </FormField>
          <TextField id="part-number" v-model="part.number" :bounds="partNumber" :label="t('close.number')" :error="errors.number" />
          <FormField id="part-source" :label="t('close.source')">
            <el-select id="part-source" v-model="part.source">
              <el-option v-for="one in partSources" :key="one" :value="one" :label="t(`partSource.${one}`)" />
            </el-select>
          </FormField>
          <TextField
            id="part-price"
            v-model="part.price"
            :label="t('close.price', { currency })"
            :error="errors.price"
            inputmode="decimal"
          />
          <button type="submit" class="push">{{ t('close.recordPart') }}</button>
        </form>
        <form class="sheet fields" novalidate @submit.prevent="recordFlash">
          <h2 class="wide">{{ t('close.flash') }}</h2>
          <FormField id="memory" :label="t('close.memory')" :error="errors.memory">
            <el-select id="memory" v-model="flash.memory" :placeholder="t('close.memory')" data-test="memory">
              <el-option v-for="one in memories" :key="one" :value="one" :label="t(`memory.${one}`)" />
            </el-select>
          </FormField>
          <TextField id="image" v-model="flash.image" :bounds="imageName" :label="t('close.image')" :error="errors.image" />
          <FormField id="flash-result" :label="t('close.result')">
            <el-select id="flash-result" v-model="flash.result">
              <el-option v-for="one in flashResults" :key="one" :value="one" :label="t(`flashResult.${one}`)" />
            </el-select>
          </FormField>
          <button type="submit" class="push">{{ t('close.recordFlash') }}</button>
        </form>
        <ModificationForm @write="(body) => store.write(body)" />
      </div>
      <div class="stack">
        <section class="sheet">
          <h2>{{ t('close.recorded') }}</h2>
          <p v-if="recorded.length === 0" class="soft">{{ t('close.nothingYet') }}</p>
          <ul data-test="recorded">
            <li v-for="(line, index) in recorded" :key="index">
              <strong>{{ line.title }}</strong> <span class="soft">{{ line.detail }}</span>
            </li>
          </ul>
          <a v-if="isModified" :href="`/api/jobs/${id}/modification.pdf`" target="_blank" data-test="modification-pdf">{{
            t('close.modification.paper')
          }}</a>
        </section>
        <form class="sheet fields" novalidate @submit.prevent="closeJob">
          <h2 class="wide">{{ t('close.outcomeTitle') }}</h2>
          <FormField id="outcome" class="wide" :label="t('close.outcome')" :error="errors.outcome">
            <el-select id="outcome" v-model="end.outcome" :placeholder="t('close.outcome')" data-test="outcome">
              <el-option v-for="one in outcomesOfAJob" :key="one" :value="one" :label="t(`outcome.${one}`)" />
            </el-select>
          </FormField>
          <FormField id="fault" class="wide" :label="t('close.fault')">
            <el-select
              id="fault"
              v-model="end.fault"
              filterable
              default-first-option
              clearable
              :empty-values="[null, undefined, '']"
              :value-on-clear="''"
              :placeholder="t('close.faultNone')"
              data-test="fault"
            >
              <el-option
                v-for="one in faults"
                :key="one.id"
                :value="one.id"
                :label="`${names.assembly(one.assembly ?? '')}: ${names.fault(one.id)} (${percent(one.probability)})`"
              />
            </el-select>
          </FormField>
          <FormField v-if="end.fault !== ''" id="confirmed-how" class="wide" :label="t('confirmed.label')" :error="errors.how">
            <el-select id="confirmed-how" v-model="end.how" :placeholder="t('confirmed.label')" data-test="confirmed-how">
              <el-option v-for="one in confirmedHows" :key="one" :value="one" :label="t(`confirmed.${one}`)" />
            </el-select>
          </FormField>
          <TextField
            id="minutes"
            v-model="end.minutes"
            class="wide"
            :label="t('close.minutes')"
            :error="errors.minutes"
            inputmode="decimal"
            @update:model-value="end.minutesTyped = true"
          />
          <TextField
            v-if="givesWarranty"
            id="warranty-days"
            v-model="warrantyDays"
            class="wide"
            :label="t('close.warranty')"
            :error="errors.warranty"
            inputmode="numeric"
          />
          <p v-if="unwritten && job.customer !== null" class="wide alarm" data-test="unwritten">
            {{ t('close.unwritten') }} <RouterLink :to="`/jobs/${id}/call`">{{ t('bench.call') }}</RouterLink>
          </p>
          <TextField id="remains" v-model="end.remains" :bounds="remains" class="wide" :label="t('close.remains')" :rows="3" />
          <fieldset v-if="leftNow.length > 0" class="wide sheet" data-test="left-out-closing">
            <legend>{{ t('close.leftTitle') }}</legend>
            <p class="soft">{{ t('close.leftHelp') }}</p>
            <el-checkbox-group v-model="end.modified">
              <el-checkbox v-for="one in leftNow" :key="one" :value="one" :label="leftName(one)" />
            </el-checkbox-group>
            <p v-if="errors.modified" class="alarm" role="alert">{{ errors.modified }}</p>
          </fieldset>
          <fieldset v-if="checksNow.length > 0" class="wide sheet" data-test="closing-checks">
            <legend>{{ t('close.checksTitle') }}</legend>
            <p class="soft">{{ t('close.checksHelp') }}</p>
            <div v-for="check in checksNow" :key="check" class="check">
              <span :id="`check-${check}`">{{ t(`close.check.${check}`) }}</span>
              <el-radio-group v-model="end.checked[check]" :aria-labelledby="`check-${check}`">
                <el-radio v-for="one in checkAnswers(check)" :key="one" :value="one" :data-test="`${check}-${one}`">
                  {{ t(check === 'ground-screws' ? 'close.checkResult.in' : `close.checkResult.${one}`) }}
                </el-radio>
              </el-radio-group>
            </div>
            <p v-if="errors.checked" class="alarm" role="alert">{{ errors.checked }}</p>
          </fieldset>
          <div v-if="unproven.length > 0" class="wide" data-test="unproven">
            <p>
              {{ t('close.unproven', unproven.length) }} <strong>{{ unproven.join(', ') }}.</strong>
            </p>
            <RouterLink :to="`/jobs/${id}/proof`" class="push" data-test="to-proof">{{ t('proof.opens') }}</RouterLink>
            <p v-if="errors.proof" class="alarm" role="alert">{{ errors.proof }}</p>
          </div>
          <button type="submit" class="push full wide" :disabled="closing || fold.closed" data-test="close-job">
            {{ t('close.close') }}
          </button>
        </form>
      </div>
    </div>
  </JobGate>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 12px;
}
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}
.check {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 4px 16px;
}
.stack {
  display: grid;
  gap: 12px;
}
@media (max-width: 900px) {
  .grid {
    grid-template-columns: 1fr;
  }
}
</style>
