<script setup lang="ts">
/** From a light to a code: tapped along, typed, filmed, or from a file. Used in a job, at the counter, and alone. */
import { codeInWords, words } from '@veglia/contract';
import { parseSeen, type BlinkResult, type BlinkWay, type CompiledPack, type LightTrace } from '@veglia/core';
import { filmedLight } from '@veglia/simulators';
import { wrap, type Remote } from 'comlink';
import { computed, onUnmounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import type { LightReader } from '../../workers/blink.worker.ts';
import FilmPad from './FilmPad.vue';
import { afterClickOf, keptTrace, takenOf, takenOfSeen, type Taken } from './reading.ts';
import ReadingSheet from './ReadingSheet.vue';
import TapPad from './TapPad.vue';
import TraceView from './TraceView.vue';

const props = defineProps<{
  compiled: CompiledPack;
  family?: string | undefined;
  layouts: readonly string[];
  takeLabel?: string | undefined;
}>();
const emit = defineEmits<{ take: [taken: Taken] }>();
const { t } = useI18n();
const ways = ['taps', 'typed', 'camera', 'video', 'file', 'simulated'] as const;
const way = ref<(typeof ways)[number]>('taps');
const trace = shallowRef<LightTrace>();
const result = shallowRef<BlinkResult>();
const corrected = shallowRef<Taken>();
const clicks = ref<readonly number[]>([]);
const typed = ref('');
const twice = ref(false);
const refusal = ref('');
const working = ref(false);
const keepTrace = ref(true);

let worker: Worker | undefined;
let reader: Remote<LightReader> | undefined;
let revision = 0;
const hows: Record<(typeof ways)[number], BlinkWay> = {
  taps: 'taps',
  typed: 'eye',
  camera: 'camera',
  video: 'video',
  file: 'trace',
  simulated: 'simulated',
};

function change(next: (typeof ways)[number]): void {
  way.value = next;
  forget();
}
function forget(): void {
  revision += 1;
  trace.value = undefined;
  result.value = undefined;
  corrected.value = undefined;
  clicks.value = [];
  refusal.value = '';
  working.value = false;
}

/** In a worker: a minute of film is some tens of milliseconds, and a long one more. */
async function read(recorded: LightTrace): Promise<void> {
  revision += 1;
  const mine = revision;
  refusal.value = '';
  corrected.value = undefined;
  trace.value = recorded;
  result.value = undefined;
  working.value = true;
  worker ??= new Worker(new URL('../../workers/blink.worker.ts', import.meta.url), { type: 'module' });
  reader ??= wrap<LightReader>(worker);
  const { timesS, levels, colours } = recorded;
  const found = await reader.read({ timesS: [...timesS], levels: [...levels], ...(colours ? { colours: [...colours] } : {}) });
  if (mine !== revision) return;
  working.value = false;
  if ('refused' in found) refusal.value = words.en.traceProblem[found.refused];
  else result.value = found;
}
function tapped(found: BlinkResult, heard: readonly number[]): void {
  result.value = found;
  clicks.value = heard;
  corrected.value = undefined;
}
async function fromFile(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const [file] = field.files ?? [];
  if (!file) return;
  forget();
  const [{ readTraceCsv }, { problemSentence }] = await Promise.all([import('@veglia/contract/blink'), import('@veglia/contract')]);
  // Ten minutes at 60 frames a second are under two megabytes.
  const found = file.size > 8_000_000 ? undefined : readTraceCsv(await file.text(), file.name);
  if (!found) refusal.value = words.en.traceProblem['too-long'];
  else if ('problems' in found)
    refusal.value = found.problems
      .slice(0, 3)
      .map((problem) => problemSentence(problem, words.en))
      .join(' ');
  else await read(found.trace);
  field.value = '';
}
const simulable = computed(() => (props.compiled.families.get(props.family ?? '')?.blink ?? []).filter(({ groups }) => groups.length > 0));
let seed = 0;
function simulate(id: string): void {
  const code = simulable.value.find((one) => one.id === id);
  if (!code) return;
  const { timesS, levels, lit } = filmedLight(code, (seed += 1));
  void read({ timesS, levels, ...(code.colour ? { colours: lit.map((on) => (on ? code.colour : undefined)) } : {}) });
}

const seen = computed(() => (typed.value.trim() === '' ? undefined : parseSeen(typed.value)));
const taken = computed((): Taken | undefined => {
  if (corrected.value) return corrected.value;
  if (way.value === 'typed') return seen.value && takenOfSeen(seen.value, twice.value);
  const now = result.value && takenOf(result.value, hows[way.value]);
  if (!now || !result.value) return undefined;
  return {
    ...now,
    ...(clicks.value.length > 0 ? { clicks: clicks.value, afterClick: afterClickOf(result.value, clicks.value) } : {}),
    ...(keepTrace.value && trace.value ? { trace: keptTrace(trace.value, result.value) } : {}),
  };
});
function take(): void {
  if (taken.value) emit('take', taken.value);
}
function onKey(event: KeyboardEvent): void {
  if (event.key !== 'Enter' || event.ctrlKey || (event.target as HTMLElement).closest('button, label')) return;
  event.preventDefault();
  event.stopPropagation();
  if (props.takeLabel) take();
}
onUnmounted(() => worker?.terminate());
</script>

<template>
  <div class="reader" data-test="blink-reader" @keydown="onKey">
    <div class="ways" role="tablist" :aria-label="t('blink.ways')">
      <button
        v-for="one in ways"
        :key="one"
        type="button"
        role="tab"
        :aria-selected="way === one"
        class="tab"
        :data-way="one"
        @click="change(one)"
      >
        {{ t(`blink.way.${one}`) }}
      </button>
    </div>
    <div class="panes">
      <section class="sheet source">
        <TapPad v-if="way === 'taps'" @read="tapped" />
        <div v-else-if="way === 'typed'" class="typed">
          <label for="seen">{{ t('blink.typedLabel') }}</label>
          <el-input id="seen" v-model="typed" :placeholder="t('blink.typedHint')" autocomplete="off" />
          <el-checkbox v-model="twice">{{ t('counter.blinkTwice') }}</el-checkbox>
          <p v-if="typed.trim() !== '' && !seen" class="alarm" role="alert">{{ t('blink.notUnderstood', { typed }) }}</p>
          <p v-else-if="seen" class="soft">{{ codeInWords({ groups: [], ...seen }, words.en) }}</p>
        </div>
        <FilmPad v-else-if="way === 'camera' || way === 'video'" :key="way" :of="way" @recorded="read" />
        <div v-else-if="way === 'file'">
          <p class="soft">{{ t('blink.fileHelp') }}</p>
          <label class="push">
            {{ t('blink.chooseFile') }}
            <input type="file" accept=".csv,text/csv" class="visually-hidden" data-test="trace-file" @change="fromFile" />
          </label>
        </div>
        <div v-else>
          <p class="soft">{{ simulable.length > 0 ? t('blink.simulatedHelp') : t('blink.simulatedNone') }}</p>
          <p class="inline">
            <button v-for="one in simulable" :key="one.id" type="button" class="push" :data-simulate="one.id" @click="simulate(one.id)">
              {{ codeInWords(one, words.en) }}
            </button>
          </p>
        </div>
        <p v-if="refusal" class="alarm" role="alert" data-test="refusal">{{ refusal }}</p>
        <p v-if="working" class="soft" role="status">{{ t('blink.working') }}</p>
        <TraceView :trace="trace" :result="result" :clicks="clicks" />
        <el-checkbox v-if="trace && takeLabel" v-model="keepTrace">{{ t('blink.keepTrace') }}</el-checkbox>
      </section>
      <ReadingSheet
        :taken="taken"
        :result="way === 'typed' ? undefined : result"
        :compiled="compiled"
        :family="family"
        :layouts="layouts"
        :take-label="takeLabel"
        @take="take"
        @correct="(put) => (corrected = put)"
      />
    </div>
  </div>
</template>

<style scoped>
.reader {
  display: grid;
  gap: 10px;
  min-width: 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.tab {
  min-height: 44px;
  padding: 0 14px;
  border: 1.5px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
  cursor: pointer;
}
.tab[aria-selected='true'] {
  border-color: var(--accent);
  background: var(--accent-wash);
  font-weight: 700;
}
.panes {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 12px;
  align-items: start;
}
.source,
.typed {
  display: grid;
  gap: 8px;
  min-width: 0;
}
</style>
