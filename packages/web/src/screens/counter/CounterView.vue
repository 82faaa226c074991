<script setup lang="ts">
import { newJobSchema, type Job } from '@veglia/contract';
import { caseOfLedger, conditions, foldCase, type Body, type CaseFold, type Counts, type SetFacts } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, nextTick, onMounted, reactive, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import { parseBetween, parseBlinkCount } from '../../numbers.ts';
import FormField from '../../parts/FormField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import SuspectList from '../../parts/SuspectList.vue';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';

const { t } = useI18n();
const packs = usePacks();
const session = useSession();
const names = useNames(() => packs.current);

const blank = () => ({
  id: uuidv7(),
  ownSet: false,
  name: '',
  contact: '',
  maker: '',
  family: '',
  model: '',
  serial: '',
  size: '',
  age: '',
  layout: 'not-sure',
  symptoms: [] as string[],
  words: '',
  blink: '',
  blinkTwice: false,
  condition: [] as (typeof conditions)[number][],
  earlier: '',
});
const form = reactive(blank());
const errors = reactive<Record<string, string>>({});
const refusal = ref('');
const saving = ref(false);
const saved = shallowRef<Job>();
const counts = shallowRef<Counts>();
const reached = ref(true);
const start = ref<HTMLElement>();

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    counts.value = await packs.countsAt(await packs.newestCounts());
    if (session.people.length === 0) await session.load();
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
onMounted(load);

const families = computed(() => packs.current?.pack.families ?? []);
const family = computed(() => families.value.find((one) => one.id === form.family));
/** Makers are told by their families; typing one chooses nothing by itself. */
function familyChosen(): void {
  if (family.value && form.maker.trim() === '') form.maker = family.value.maker;
  const only = family.value?.layouts.length === 1 ? family.value.layouts[0] : undefined;
  if (only !== undefined) form.layout = only;
}

function check(): Record<string, string> {
  const found: Record<string, string> = {};
  if (!form.ownSet && form.name.trim() === '') found.name = t('counter.errors.name');
  if (form.maker.trim() === '') found.maker = t('counter.errors.maker');
  if (form.size.trim() !== '' && parseBetween(form.size, 5, 200, true) === undefined)
    found.size = t('counter.errors.size', { value: form.size });
  if (form.age.trim() !== '' && parseBetween(form.age, 0, 80) === undefined) found.age = t('counter.errors.age', { value: form.age });
  if (form.symptoms.length === 0) found.symptoms = t('counter.errors.symptoms');
  if (form.blink.trim() !== '' && !parseBlinkCount(form.blink)) found.blink = t('counter.errors.blink', { value: form.blink });
  return found;
}

/** The entries this form amounts to; fields that can't be read are left out. */
const bodies = computed<Body[]>(() => {
  const size = parseBetween(form.size, 5, 200, true);
  const age = parseBetween(form.age, 0, 80);
  const set: SetFacts = {
    layout: form.layout === 'not-sure' ? { odds: {} } : form.layout,
    ...(form.family === '' ? {} : { family: form.family }),
    ...(size === undefined ? {} : { sizeInch: size }),
    ...(age === undefined ? {} : { ageYears: age }),
  };
  const blink = parseBlinkCount(form.blink);
  return [
    {
      kind: 'job.opened',
      v: 1,
      set,
      ...(form.condition.length > 0 ? { condition: form.condition } : {}),
      ...(form.earlier.trim() === '' ? {} : { earlier: form.earlier.trim() }),
    },
    ...(form.symptoms.length > 0
      ? [
          {
            kind: 'symptom.reported' as const,
            v: 1 as const,
            symptoms: form.symptoms,
            ...(form.words.trim() === '' ? {} : { words: form.words.trim() }),
          },
        ]
      : []),
    ...(blink ? [{ kind: 'blink.read' as const, v: 1 as const, groups: blink, cycles: form.blinkTwice ? 2 : 1 }] : []),
  ];
});

const preview = computed<CaseFold | undefined>(() => {
  if (!packs.current || form.symptoms.length === 0) return undefined;
  const entries = bodies.value.map((body, index) => ({ id: `draft-${index}`, seq: index + 1, at: '', by: '', basedOn: 0, body }));
  return foldCase(caseOfLedger(entries, undefined, counts.value), packs.current);
});
const hidesMore = computed(() => form.condition.some((one) => one === 'liquid' || one === 'storm' || one === 'dropped'));

async function save(): Promise<void> {
  for (const key of Object.keys(errors)) delete errors[key];
  refusal.value = '';
  Object.assign(errors, check());
  if (Object.keys(errors).length > 0) {
    await nextTick();
    document.querySelector<HTMLElement>('.field.wrong input, .field.wrong textarea')?.focus();
    return;
  }
  const person = session.person;
  if (!person) {
    refusal.value = t('common.notReached');
    return;
  }
  const at = new Date().toISOString();
  const request = newJobSchema.safeParse({
    id: form.id,
    by: person.id,
    customer: form.ownSet ? null : { name: form.name, contact: form.contact },
    plate: { maker: form.maker, model: form.model, serial: form.serial },
    entries: bodies.value.map((body) => ({ id: uuidv7(), at, basedOn: 0, body })),
  });
  if (!request.success) {
    refusal.value = request.error.issues.map((issue) => issue.message).join(' ');
    return;
  }
  saving.value = true;
  try {
    const reply = await api.takeIn(request.data);
    if (reply.ok) {
      saved.value = reply.value;
      await nextTick();
      document.querySelector<HTMLElement>('[data-test="to-bench"]')?.focus();
    } else {
      refusal.value = [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ');
    }
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('common.notReached');
  } finally {
    saving.value = false;
  }
}

async function another(): Promise<void> {
  Object.assign(form, blank());
  saved.value = undefined;
  await nextTick();
  start.value?.querySelector('input')?.focus();
}
</script>

<template>
  <h1>{{ t('counter.title') }}</h1>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current" class="counter">
    <form ref="start" class="left" novalidate @submit.prevent="save" @keydown.ctrl.enter.prevent="save">
      <fieldset :disabled="saved !== undefined" class="sheet">
        <legend>{{ t('counter.wrong') }}</legend>
        <FormField id="symptoms" class="wide" :label="t('counter.symptoms')" :error="errors.symptoms">
          <el-select
            id="symptoms"
            v-model="form.symptoms"
            multiple
            filterable
            default-first-option
            :placeholder="t('counter.symptomsHint')"
            data-test="symptoms"
          >
            <el-option
              v-for="symptom in packs.current.pack.symptoms"
              :key="symptom.id"
              :value="symptom.id"
              :label="`${textOf(symptom.name)} (${textOf(symptom.said)})`"
            />
          </el-select>
        </FormField>
        <FormField id="words" class="wide" :label="t('counter.words')">
          <el-input id="words" v-model="form.words" type="textarea" :rows="2" />
        </FormField>
        <FormField id="blink" :label="t('counter.blink')" :error="errors.blink">
          <el-input id="blink" v-model="form.blink" :placeholder="t('counter.blinkHint')" />
        </FormField>
        <div class="field bottom">
          <el-checkbox v-model="form.blinkTwice" :disabled="form.blink.trim() === ''">{{ t('counter.blinkTwice') }}</el-checkbox>
        </div>
      </fieldset>
      <fieldset :disabled="saved !== undefined" class="sheet">
        <legend>{{ t('counter.set') }}</legend>
        <FormField id="maker" :label="t('counter.maker')" :error="errors.maker">
          <el-input id="maker" v-model="form.maker" :placeholder="t('counter.makerHint')" />
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
        <FormField id="model" :label="t('counter.model')">
          <el-input id="model" v-model="form.model" />
        </FormField>
        <FormField id="serial" :label="t('counter.serial')">
          <el-input id="serial" v-model="form.serial" />
        </FormField>
        <FormField id="size" class="short" :label="t('counter.size')" :error="errors.size">
          <el-input id="size" v-model="form.size" inputmode="numeric" />
        </FormField>
        <FormField id="age" class="short" :label="t('counter.age')" :error="errors.age">
          <el-input id="age" v-model="form.age" inputmode="decimal" />
        </FormField>
        <FormField id="layout" :label="t('counter.layout')">
          <el-select id="layout" v-model="form.layout">
            <el-option value="not-sure" :label="t('counter.notSure')" />
            <el-option v-for="layout in packs.current.pack.layouts" :key="layout.id" :value="layout.id" :label="textOf(layout.name)" />
          </el-select>
        </FormField>
        <div class="field wide">
          <span class="grouplabel">{{ t('counter.condition') }}</span>
          <el-checkbox-group v-model="form.condition">
            <el-checkbox v-for="one in conditions" :key="one" :value="one">{{ t(`condition.${one}`) }}</el-checkbox>
          </el-checkbox-group>
        </div>
        <FormField id="earlier" class="wide" :label="t('counter.earlier')">
          <el-input id="earlier" v-model="form.earlier" />
        </FormField>
      </fieldset>
      <fieldset :disabled="saved !== undefined" class="sheet">
        <legend>{{ t('counter.customer') }}</legend>
        <div class="field wide">
          <el-checkbox v-model="form.ownSet">{{ t('counter.ownSet') }}</el-checkbox>
        </div>
        <FormField id="name" :label="t('counter.name')" :error="errors.name">
          <el-input id="name" v-model="form.name" :disabled="form.ownSet" />
        </FormField>
        <FormField id="contact" :label="t('counter.contact')">
          <el-input id="contact" v-model="form.contact" :disabled="form.ownSet" />
        </FormField>
      </fieldset>
    </form>

    <aside class="right">
      <section v-if="saved" class="sheet saved" role="status">
        <h1 data-test="saved">{{ t('counter.saved', { n: saved.number }) }}</h1>
        <RouterLink class="push full" :to="`/jobs/${saved.id}`" data-test="to-bench">{{ t('counter.toBench') }}</RouterLink>
        <button type="button" class="push" @click="another">{{ t('counter.another') }}</button>
      </section>
      <section v-else class="sheet">
        <p v-if="refusal" class="alarm" role="alert" data-test="refusal">
          {{ t('counter.notStored') }}: {{ refusal }} {{ t('counter.keptTyped') }}
        </p>
        <button type="button" class="push full save" :disabled="saving" data-test="save" @click="save">
          {{ saving ? t('counter.saving') : t('counter.save') }} <kbd>Ctrl ↵</kbd>
        </button>
        <p class="soft small">{{ t('counter.opensWarranty') }}</p>
        <p v-if="hidesMore" class="alarm">{{ t('counter.hiddenFault') }}</p>
      </section>
      <section class="sheet">
        <h2>{{ t('counter.firstOdds') }}</h2>
        <template v-if="preview">
          <SuspectList :assemblies="preview.assemblies.filter((one) => one.verdict !== 'cleared').slice(0, 7)" :compiled="packs.current" />
          <p class="soft small">{{ t('counter.firstOddsHelp') }}</p>
        </template>
        <p v-else class="soft">{{ t('counter.noSymptom') }}</p>
      </section>
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
      <section v-if="preview && preview.doubts.length > 0" class="sheet small">
        <p v-for="(doubt, index) in preview.doubts" :key="index">
          {{ t(`core.doubt.${doubt.code}`, { id: doubt.id ?? '', percent: Math.round((doubt.value ?? 0) * 100) + ' %' }) }}
        </p>
      </section>
    </aside>
  </div>
  <p v-else class="soft">{{ t('common.loading') }}</p>
  <span class="visually-hidden">{{ form.symptoms.map((id) => names.symptom(id)).join(', ') }}</span>
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
}
.save {
  width: 100%;
  justify-content: center;
  min-height: 50px;
}
.saved {
  display: grid;
  gap: 12px;
}
.small {
  font-size: 15px;
}
kbd {
  font-size: 13px;
  opacity: 0.85;
}
@media (max-width: 900px) {
  .counter {
    grid-template-columns: 1fr;
  }
}
</style>
