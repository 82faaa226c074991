<script setup lang="ts">
import { boundsOf, newToldSchema, type Told } from '@veglia/contract';
import type { Counts } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, onMounted, reactive, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import ChartFrame from '../../charts/ChartFrame.vue';
import { faultShares, faultsOption, fewestSets } from '../../charts/faults.ts';
import { percent, useNames } from '../../names.ts';
import { parseBetween } from '../../numbers.ts';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';

const { t, d } = useI18n();
const packs = usePacks();
const session = useSession();
const names = useNames(() => packs.current);
const told = shallowRef<Told[]>();
const number = ref(0);
const counts = shallowRef<Counts>();
const reached = ref(true);
const refusal = ref('');
const errors = reactive<Record<string, string>>({});
const form = reactive({ id: uuidv7(), layout: '', family: '', symptom: '', fault: '', n: '' });

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    form.layout ||= packs.current?.pack.layouts[0]?.id ?? '';
    const reply = await api.told();
    if (reply.ok) told.value = reply.value;
    await loadCounts();
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
async function loadCounts(): Promise<void> {
  number.value = await packs.newestCounts();
  counts.value = await packs.countsAt(number.value);
}
onMounted(load);

const layoutName = (id: string): string => textOf(packs.current?.layouts.get(id)?.name) || id;
const familyName = (id: string): string => textOf(packs.current?.pack.families.find((one) => one.id === id)?.name) || id;
/** What was found: an assembly's own faults under its name, and the assembly itself for those who can't say more. */
const groups = computed(() => {
  const byAssembly = new Map<string, string[]>();
  for (const fault of packs.current?.faultsOf.get(form.layout) ?? [])
    byAssembly.set(fault.assembly, [...(byAssembly.get(fault.assembly) ?? []), fault.id]);
  return [...byAssembly].map(([assembly, faults]) => ({ assembly, faults }));
});
const families = computed(() => packs.current?.pack.families.filter((one) => one.layouts.includes(form.layout)) ?? []);
watch(
  () => form.layout,
  () => Object.assign(form, { family: '', fault: '' }),
);
const found = (id: string): string =>
  packs.current?.faults.has(id) === true ? names.fault(id) : t('experience.wholeAssembly', { assembly: names.assembly(id) });
const chosenLayout = ref('');
/** Those of which anything was counted, most sets first. */
const countedLayouts = computed(() => {
  const now = counts.value;
  if (!now) return [];
  const all = [...new Set([...now.jobs, ...now.told].map(({ layout }) => layout))];
  return all.sort((a, b) => faultShares(now, b).of - faultShares(now, a).of || (a < b ? -1 : 1));
});
const chartLayout = computed({
  get: () => chosenLayout.value || (countedLayouts.value[0] ?? ''),
  set: (id) => (chosenLayout.value = id),
});
const shares = computed(() => (counts.value ? faultShares(counts.value, chartLayout.value) : { of: 0, faults: [] }));
const jobs = computed(() => [...(counts.value?.jobs ?? [])].sort((a, b) => b.n - a.n || (a.fault < b.fault ? -1 : 1)));

async function guarded(ask: () => ReturnType<typeof api.told>): Promise<boolean> {
  refusal.value = '';
  try {
    const reply = await ask();
    if (!reply.ok) {
      refusal.value = [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ');
      return false;
    }
    told.value = reply.value;
    await loadCounts();
    return true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('common.notReached');
    return false;
  }
}

const repairs = boundsOf(newToldSchema.shape.n);
async function add(): Promise<void> {
  for (const key of Object.keys(errors)) delete errors[key];
  const n = parseBetween(form.n, repairs, true);
  if (form.fault === '') errors.fault = t('experience.errors.fault');
  if (n === undefined) errors.n = t('experience.errors.n', { value: form.n, ...repairs });
  const by = session.person?.id;
  if (Object.keys(errors).length > 0 || n === undefined || by === undefined) return;
  const { id, layout, family, symptom, fault } = form;
  const kept = await guarded(() => api.tell({ id, by, layout, family: family || null, symptom: symptom || null, fault, n }));
  if (kept) Object.assign(form, { id: uuidv7(), fault: '', n: '' });
}
</script>

<template>
  <h1>{{ t('experience.title') }}</h1>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current && told" class="pair">
    <div class="stack">
      <form class="sheet stack" novalidate @submit.prevent="add">
        <h2>{{ t('experience.tell') }}</h2>
        <p class="soft">{{ t('experience.help') }}</p>
        <TextField id="n" v-model="form.n" class="narrow" :label="t('experience.n')" :error="errors.n" inputmode="numeric" />
        <FormField id="layout" :label="t('experience.layout')">
          <el-select id="layout" v-model="form.layout" filterable default-first-option>
            <el-option v-for="one in packs.current.pack.layouts" :key="one.id" :value="one.id" :label="textOf(one.name)" />
          </el-select>
        </FormField>
        <FormField id="family" :label="t('experience.family')">
          <el-select
            id="family"
            v-model="form.family"
            filterable
            default-first-option
            clearable
            :value-on-clear="''"
            :empty-values="[null, undefined, '']"
            :placeholder="t('experience.anyFamily')"
          >
            <el-option v-for="one in families" :key="one.id" :value="one.id" :label="textOf(one.name)" />
          </el-select>
        </FormField>
        <FormField id="symptom" :label="t('experience.symptom')">
          <el-select
            id="symptom"
            v-model="form.symptom"
            filterable
            default-first-option
            clearable
            :value-on-clear="''"
            :empty-values="[null, undefined, '']"
            :placeholder="t('experience.anySymptom')"
          >
            <el-option v-for="one in packs.current.pack.symptoms" :key="one.id" :value="one.id" :label="textOf(one.name)" />
          </el-select>
        </FormField>
        <FormField id="fault" :label="t('experience.fault')" :error="errors.fault">
          <el-select
            id="fault"
            v-model="form.fault"
            filterable
            default-first-option
            :empty-values="[null, undefined, '']"
            :placeholder="t('experience.faultHint')"
          >
            <el-option-group v-for="{ assembly, faults } in groups" :key="assembly" :label="names.assembly(assembly)">
              <el-option v-for="id in faults" :key="id" :value="id" :label="names.fault(id)" />
              <el-option :value="assembly" :label="t('experience.wholeAssembly', { assembly: names.assembly(assembly) })" />
            </el-option-group>
          </el-select>
        </FormField>
        <p v-if="refusal" class="alarm" role="alert">{{ refusal }}</p>
        <button type="submit" class="push full" data-test="tell">{{ t('experience.add') }}</button>
      </form>
    </div>
    <div class="stack">
      <section class="sheet" data-test="told">
        <h2>{{ t('experience.told') }}</h2>
        <p v-if="told.length === 0" class="soft">{{ t('experience.toldNone') }}</p>
        <ul v-else>
          <li v-for="one in told" :key="one.id" class="row" :class="{ soft: one.withdrawn }">
            <span class="what">
              <strong class="figure">{{ t('experience.times', one.n) }}</strong> {{ found(one.fault) }}
              <span class="soft small">
                {{ one.family === null ? layoutName(one.layout) : familyName(one.family)
                }}{{ one.symptom === null ? '' : `, ${names.symptom(one.symptom)}` }};
                {{ t('experience.by', { name: session.people.find(({ id }) => id === one.by)?.name ?? '?', when: d(one.at, 'day') }) }}
              </span>
            </span>
            <span v-if="one.withdrawn">{{ t('experience.withdrawn') }}</span>
            <button v-else type="button" class="plain" @click="guarded(() => api.withdrawTold(one.id))">
              {{ t('experience.withdraw') }}
            </button>
          </li>
        </ul>
      </section>
      <section v-if="chartLayout" class="sheet" data-test="fault-shares">
        <FormField id="chart-layout" :label="t('chart.faults.layout')">
          <el-select id="chart-layout" v-model="chartLayout" filterable>
            <el-option v-for="id in countedLayouts" :key="id" :value="id" :label="layoutName(id)" />
          </el-select>
        </FormField>
        <p v-if="shares.of < fewestSets" class="soft">{{ t('chart.faults.few', { n: fewestSets }) }}</p>
        <ChartFrame
          v-else
          :title="t('chart.faults.title', { n: shares.of })"
          :file="`faults-${chartLayout}`"
          :head="[t('chart.faults.fault'), t('chart.faults.n'), t('chart.faults.share'), t('chart.faults.interval')]"
          :rows="
            shares.faults.map((one) => [found(one.fault), String(one.n), percent(one.share), `${percent(one.low)} – ${percent(one.high)}`])
          "
          :option="
            (colours) =>
              faultsOption(colours, shares.faults, {
                title: t('chart.faults.title', { n: shares.of }),
                share: t('chart.faults.share'),
                name: found,
              })
          "
        />
      </section>
      <section class="sheet" data-test="counted-jobs">
        <h2>{{ t('experience.jobs') }}</h2>
        <p v-if="number > 0" class="soft">{{ t('experience.snapshot', { n: number }) }}</p>
        <p v-if="jobs.length === 0" class="soft">{{ t('experience.jobsNone') }}</p>
        <ul v-else>
          <li v-for="(one, index) in jobs" :key="index" class="row">
            <span class="what">
              <strong class="figure">{{ t('experience.times', one.n) }}</strong> {{ names.fault(one.fault) }}
              <span class="soft small">
                {{ one.family === undefined ? layoutName(one.layout) : familyName(one.family)
                }}{{ one.symptom === undefined ? '' : `, ${names.symptom(one.symptom)}` }}
              </span>
            </span>
          </li>
        </ul>
      </section>
    </div>
  </div>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 16px;
  margin-top: 10px;
  align-items: start;
}
.stack {
  display: grid;
  gap: 12px;
}
.narrow {
  max-width: 160px;
}
.row {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  min-height: 44px;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
.small {
  display: block;
  font-size: 15px;
}
@media (max-width: 900px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
